package dev.trellisgorge.brief;

import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.table.CalendarUnit;
import dev.trellisgorge.table.Characters;
import dev.trellisgorge.table.Numbers;
import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalDouble;

/** Values of settings as people write them. Thread-safe: it holds no state. */
final class SettingValues {
    private SettingValues() {
    }

    static Optional<LocalDate> date(String text) {
        return CalendarUnit.days(text).filter(days -> days.unit() == CalendarUnit.DAY).map(CalendarUnit.Days::first);
    }

    /** The settings with another value for one that is there, of the kind that the brief states; empty where the value is not of that kind. */
    static Optional<Settings> changed(Settings settings, String name, String value) {
        OptionalDouble number = Numbers.parse(value);
        return switch (settings.kind(name)) {
            case NUMBER -> number.isPresent() && !Double.isInfinite(number.getAsDouble()) ? Optional.of(settings.with(name, number.getAsDouble())) : Optional.empty();
            case DATE -> date(value).map(date -> settings.with(name, date));
            default -> Optional.of(settings.with(name, Characters.shown(value)));
        };
    }
}
