package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Typing.Signature;
import dev.trellisgorge.table.Kind;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** What each node takes and gives: the rules of {@link Typing}. The kind of the node itself is not asked for. */
record Signatures(Typing typing) implements Formula.Cases<Signature> {
    private static final Optional<Kind> NUMBER = Optional.of(Kind.NUMBER);
    private static final Optional<Kind> TEXT = Optional.of(Kind.TEXT);
    private static final Optional<Kind> TRUTH = Optional.of(Kind.TRUTH);

    private static final Pattern DATE_PATTERN = Pattern.compile("(?:'(?:[^']|'')*'|[yuQqMLdE]|[^A-Za-z'])+");

    private static Signature leaf(Kind kind) {
        return new Signature(Optional.of(kind), List.of());
    }

    /** All operands must be of one kind. */
    private Signature all(Kind wanted, Kind gives, Formula f) {
        f.operands().forEach(operand -> typing.need(wanted, operand, f));
        return new Signature(Optional.of(gives), Collections.nCopies(f.operands().size(), Optional.of(wanted)));
    }

    /** Operands of any kind, the same for all. */
    private Signature alike(Optional<Kind> gives, Formula f) {
        Optional<Kind> shared = typing.same(f.operands(), f);
        return new Signature(gives.isPresent() ? gives : shared, Collections.nCopies(f.operands().size(), gives.isPresent() ? shared.or(() -> NUMBER) : shared));
    }

    /** One operand of any kind. */
    private Signature any(Kind gives, Formula f) {
        Optional<Kind> kind = typing.kind(f.operands().get(0));
        return new Signature(Optional.of(gives), List.of(kind.or(() -> NUMBER)));
    }

    @Override
    public Signature column(Leaf.Column f, Kind kind) {
        return leaf(typing.columnKind(f.name()));
    }

    @Override
    public Signature computed(Leaf.Computed f, Kind kind) {
        return leaf(typing.computedKind(f.name()));
    }

    @Override
    public Signature literal(Leaf.Literal f, Kind kind) {
        return leaf(f.kind());
    }

    @Override
    public Signature absent(Leaf.Absent f, Kind kind) {
        return new Signature(Optional.empty(), List.of());
    }

    @Override
    public Signature setting(Leaf.Setting f, Kind kind) {
        return leaf(typing.settingKind(f.name()));
    }

    @Override
    public Signature rowNumber(Leaf.RowNumber f, Kind kind) {
        return leaf(Kind.NUMBER);
    }

    @Override
    public Signature arithmetic(Numeric.Arithmetic f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature extreme(Numeric.Extreme f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature negate(Numeric.Negate f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature abs(Numeric.Abs f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature floor(Numeric.Floor f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature round(Numeric.Round f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature comparison(Condition.Comparison f, Kind kind) {
        return alike(TRUTH, f);
    }

    @Override
    public Signature in(Condition.In f, Kind kind) {
        return alike(TRUTH, f);
    }

    @Override
    public Signature logic(Condition.Logic f, Kind kind) {
        return all(Kind.TRUTH, Kind.TRUTH, f);
    }

    @Override
    public Signature not(Condition.Not f, Kind kind) {
        return all(Kind.TRUTH, Kind.TRUTH, f);
    }

    @Override
    public Signature present(Condition.Present f, Kind kind) {
        return any(Kind.TRUTH, f);
    }

    @Override
    public Signature cases(Choice.Case f, Kind kind) {
        List<Formula> results = new ArrayList<>();
        for (Choice.When when : f.whens()) {
            typing.need(Kind.TRUTH, when.condition(), f);
            results.add(when.result());
        }
        results.add(f.otherwise());
        Optional<Kind> shared = typing.same(results, f);
        List<Optional<Kind>> operands = new ArrayList<>();
        f.whens().forEach(when -> operands.addAll(List.of(TRUTH, shared)));
        operands.add(shared);
        return new Signature(shared, operands);
    }

    @Override
    public Signature coalesce(Choice.Coalesce f, Kind kind) {
        return alike(Optional.empty(), f);
    }

    @Override
    public Signature nullIf(Choice.NullIf f, Kind kind) {
        Optional<Kind> shared = typing.same(f.operands(), f);
        return new Signature(typing.kind(f.left()), List.of(shared, shared));
    }

    @Override
    public Signature calendarField(Calendar.CalendarField f, Kind kind) {
        return calendar(f, f.of());
    }

    @Override
    public Signature period(Calendar.Period f, Kind kind) {
        return calendar(f, f.of());
    }

    private Signature calendar(Formula f, Formula of) {
        Optional<Kind> kind = typing.kind(of);
        if (kind.isPresent() && kind.get() != Kind.DATE && kind.get() != Kind.TEXT) {
            throw typing.mismatch("'" + of + "' is " + kind.get().phrase() + ", not a date or the text of a period", f);
        }
        return new Signature(NUMBER, List.of(kind.or(() -> Optional.of(Kind.DATE))));
    }

    @Override
    public Signature concat(Textual.Concat f, Kind kind) {
        return all(Kind.TEXT, Kind.TEXT, f);
    }

    @Override
    public Signature repeat(Textual.Repeat f, Kind kind) {
        typing.need(Kind.TEXT, f.text(), f);
        typing.need(Kind.NUMBER, f.count(), f);
        return new Signature(TEXT, List.of(TEXT, NUMBER));
    }

    @Override
    public Signature text(Textual.Text f, Kind kind) {
        return any(Kind.TEXT, f);
    }

    @Override
    public Signature formatted(Textual.Formatted f, Kind kind) {
        Optional<Kind> of = typing.kind(f.of());
        if (of.equals(Optional.of(Kind.TRUTH))) {
            throw typing.mismatch("'" + f.of() + "' is " + of.get().phrase() + ", and a format is for numbers and dates", f);
        }
        if (of.isPresent() && of.get() != Kind.NUMBER && !DATE_PATTERN.matcher(f.pattern()).matches()) {
            throw typing.mismatch("'" + f.pattern() + "' is no date pattern of years (y), quarters (Q), months (M), days (d) and weekdays (E)", f);
        }
        return any(Kind.TEXT, f);
    }

    @Override
    public Signature aggregate(Window.Aggregate f, Kind kind) {
        if (f.fold() == Window.Fold.COUNT) {
            return any(Kind.NUMBER, f);
        }
        if (f.fold() != Window.Fold.SUM && typing.kind(f.of()).isEmpty()) {
            return new Signature(Optional.empty(), List.of(Optional.empty()));
        }
        Kind of = f.fold() == Window.Fold.SUM ? Kind.NUMBER : numberOrDate(f.of());
        return all(of, of, f);
    }

    @Override
    public Signature cumulative(Window.Cumulative f, Kind kind) {
        typing.need(Kind.NUMBER, f.of(), f);
        typing.need(Kind.TRUTH, f.restart(), f);
        return new Signature(NUMBER, List.of(NUMBER, TRUTH));
    }

    @Override
    public Signature lag(Window.Lag f, Kind kind) {
        return all(Kind.NUMBER, Kind.NUMBER, f);
    }

    @Override
    public Signature rank(Window.Rank f, Kind kind) {
        return all(Kind.NUMBER, numberOrDate(f.of()), f);
    }

    @Override
    public Signature lookup(Window.Lookup f, Kind kind) {
        typing.need(Kind.NUMBER, f.key(), f);
        typing.need(Kind.NUMBER, f.wanted(), f);
        return new Signature(typing.kind(f.of()), List.of(typing.kind(f.of()), NUMBER, NUMBER));
    }

    /** A date where it is one; all else must be a number. */
    private Kind numberOrDate(Formula of) {
        return typing.kind(of).filter(Kind.DATE::equals).orElse(Kind.NUMBER);
    }
}
