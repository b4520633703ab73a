package dev.trellisgorge.brief;

import dev.trellisgorge.brief.Mapping.Text;
import dev.trellisgorge.problem.Nearest;
import dev.trellisgorge.problem.Problems;
import dev.trellisgorge.tables.Layout;
import java.nio.charset.Charset;
import java.time.format.DateTimeFormatter;
import java.time.format.ResolverStyle;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;

/** Reads how a data file is laid out. */
final class LayoutReader {
    private final Mapping keys;
    private final Problems problems;

    LayoutReader(Mapping keys, Problems problems) {
        this.keys = keys;
        this.problems = problems;
    }

    /** What is wrong is reported, and then left to be found. */
    Layout read() {
        keys.allowing(List.of("file"), List.of("file", "delimiter", "charset", "sheet", "header-row", "decimal", "dates", "missing", "total-row"));
        Layout layout = Layout.FOUND;
        Optional<Character> delimiter = sign("delimiter", "must be one sign, such as ';'");
        layout = delimiter.isPresent() ? layout.delimiter(delimiter.get()) : layout;
        Optional<Charset> charset = keys.text("charset").flatMap(this::charset);
        layout = charset.isPresent() ? layout.charset(charset.get()) : layout;
        Optional<Text> sheet = keys.text("sheet");
        layout = sheet.isPresent() ? layout.sheet(sheet.get().value()) : layout;
        OptionalDouble header = keys.number("header-row");
        if (header.isPresent() && header.getAsDouble() >= 1 && header.getAsDouble() == Math.rint(header.getAsDouble())) {
            layout = layout.headerRow((int) header.getAsDouble());
        } else if (header.isPresent()) {
            keys.refuse("header-row", "must be a line, 1 for the first");
        }
        return cells(layout);
    }

    private Layout cells(Layout laidOut) {
        Layout layout = laidOut;
        Optional<Character> decimal = sign("decimal", "must be '.' or ','").filter(sign -> {
            if (sign != '.' && sign != ',') {
                keys.refuse("decimal", "must be '.' or ','");
            }
            return sign == '.' || sign == ',';
        });
        layout = decimal.isPresent() ? layout.decimal(decimal.get()) : layout;
        Optional<DateTimeFormatter> dates = keys.text("dates").flatMap(this::pattern);
        layout = dates.isPresent() ? layout.dates(dates.get()) : layout;
        if (keys.has("missing")) {
            layout = layout.missing((keys.isList("missing") ? keys.texts("missing") : keys.text("missing").stream().toList()).stream().map(Text::value).toList());
        }
        Optional<Layout.TotalRow> total = keys.choice("total-row", Layout.TotalRow.class);
        return total.isPresent() ? layout.totalRow(total.get()) : layout;
    }

    private Optional<Character> sign(String key, String otherwise) {
        Optional<Text> text = keys.text(key);
        if (text.isPresent() && text.get().value().length() != 1) {
            keys.refuse(key, otherwise);
            return Optional.empty();
        }
        return text.map(one -> one.value().charAt(0));
    }

    private Optional<Charset> charset(Text name) {
        if (!Charset.availableCharsets().containsKey(name.value())) {
            problems.add(name.place(), "there is no charset '" + name.value() + "'. " + Nearest.hint(name.value(),
                    List.of("UTF-8", "UTF-16", "ISO-8859-1", "windows-1252")));
            return Optional.empty();
        }
        return Optional.of(Charset.forName(name.value()));
    }

    private Optional<DateTimeFormatter> pattern(Text text) {
        try {
            return Optional.of(DateTimeFormatter.ofPattern(text.value().replace('y', 'u'), Locale.ROOT).withResolverStyle(ResolverStyle.STRICT));
        } catch (IllegalArgumentException e) {
            problems.add(text.place(), "'" + text.value() + "' is no date pattern; write one such as dd.MM.yyyy");
            return Optional.empty();
        }
    }
}
