package dev.trellisgorge.brief;

import dev.trellisgorge.problem.Nearest;
import java.util.Arrays;
import java.util.IllformedLocaleException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** The locales that output is written in: those of the runtime's CLDR data, by their BCP 47 tags. */
final class Languages {
    private Languages() {
    }

    /** The locale with a tag such as {@code de-DE} or {@code de-DE-u-cu-chf}; empty where the runtime has no data for it. */
    static Optional<Locale> named(String tag) {
        try {
            Locale locale = new Locale.Builder().setLanguageTag(tag).build();
            Locale bare = locale.stripExtensions();
            return Arrays.asList(Locale.getAvailableLocales()).contains(bare) && !bare.getLanguage().isEmpty() ? Optional.of(locale) : Optional.empty();
        } catch (IllformedLocaleException e) {
            return Optional.empty();
        }
    }

    /** Why a tag is none, with the nearest one. */
    static String refusal(String tag) {
        List<String> known = Arrays.stream(Locale.getAvailableLocales()).map(Locale::toLanguageTag).filter(each -> !each.equals("und")).sorted().toList();
        String hint = known.stream().anyMatch(each -> each.equals(tag.replace('_', '-'))) ? "Write '" + tag.replace('_', '-') + "'."
                : Nearest.to(tag, known).map(near -> "Did you mean '" + near + "'?").orElse("Write a language and a country, such as de-DE or en-GB.");
        return "there is no locale '" + tag + "'. " + hint;
    }
}
