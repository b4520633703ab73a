package dev.trellisgorge.formula;

import dev.trellisgorge.table.Kind;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.Collectors;

/** Formulas of texts over cells of the same row. Immutable and thread-safe; {@link Formula} says what each does. */
public sealed interface Textual extends Formula {

    record Concat(List<Formula> of) implements Textual {
        public Concat {
            of = List.copyOf(of);
            if (of.isEmpty()) {
                throw new IllegalArgumentException("there is nothing in the list");
            }
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.concat(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return of;
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Concat(operands);
        }

        @Override
        public int strength() {
            return ADDED;
        }

        @Override
        public String toString() {
            return of.stream().map(each -> each.within(MULTIPLIED)).collect(Collectors.joining(" || "));
        }
    }

    record Repeat(Formula text, Formula count) implements Textual {
        public Repeat {
            Objects.requireNonNull(text, "text");
            Objects.requireNonNull(count, "count");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.repeat(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(text, count);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Repeat(operands.get(0), operands.get(1));
        }

        @Override
        public String toString() {
            return "REPEAT(" + text + ", " + count + ")";
        }
    }

    record Text(Formula of) implements Textual {
        public Text {
            Objects.requireNonNull(of, "of");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.text(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Text(operands.get(0));
        }

        @Override
        public String toString() {
            return "TEXT(" + of + ")";
        }
    }

    record Formatted(Formula of, String pattern, Locale locale) implements Textual {
        public Formatted {
            Objects.requireNonNull(of, "of");
            Objects.requireNonNull(pattern, "pattern");
            Objects.requireNonNull(locale, "locale");
        }

        @Override
        public <R> R match(Cases<R> cases, Kind kind) {
            return cases.formatted(this, kind);
        }

        @Override
        public boolean failsOn(List<Kind> operands) {
            return false;
        }

        @Override
        public List<Formula> operands() {
            return List.of(of);
        }

        @Override
        public Formula rebuilt(List<Formula> operands) {
            return new Formatted(operands.get(0), pattern, locale);
        }

        @Override
        public String toString() {
            return "FORMAT(" + of + ", " + Names.text(pattern) + (locale.equals(Locale.ROOT) ? "" : ", " + Names.text(locale.toLanguageTag())) + ")";
        }
    }
}
