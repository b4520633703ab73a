package dev.trellisgorge.formula;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import java.util.Optional;

/** Finds the kind of a formula's cells, and refuses a formula whose sides don't go together. Empty is absent. */
final class KindOf implements Formula.Cases<Optional<Kind>> {
    private final Scope scope;

    KindOf(Scope scope) {
        this.scope = scope;
    }

    @Override
    public Optional<Kind> input(Formula.Input f) {
        return Optional.of(scope.input(f.column()).kind());
    }

    @Override
    public Optional<Kind> helper(Formula.Helper f) {
        return Optional.of(scope.helper(f.column()).kind());
    }

    @Override
    public Optional<Kind> constant(Formula.Constant f) {
        return Optional.of(Kind.NUMBER);
    }

    @Override
    public Optional<Kind> words(Formula.Words f) {
        return Optional.of(Kind.TEXT);
    }

    @Override
    public Optional<Kind> setting(Formula.Setting f) {
        scope.settings().value(f.name());
        return Optional.of(Kind.NUMBER);
    }

    @Override
    public Optional<Kind> absent(Formula.Absent f) {
        return Optional.empty();
    }

    @Override
    public Optional<Kind> arithmetic(Formula.Arithmetic f) {
        return all(Kind.NUMBER, f, f.left(), f.right());
    }

    @Override
    public Optional<Kind> magnitude(Formula.Magnitude f) {
        return all(Kind.NUMBER, f, f.of());
    }

    @Override
    public Optional<Kind> comparison(Formula.Comparison f) {
        same(f.left(), f.right(), f);
        return Optional.of(Kind.TRUTH);
    }

    @Override
    public Optional<Kind> logic(Formula.Logic f) {
        return all(Kind.TRUTH, f, f.left(), f.right());
    }

    @Override
    public Optional<Kind> not(Formula.Not f) {
        return all(Kind.TRUTH, f, f.of());
    }

    @Override
    public Optional<Kind> present(Formula.Present f) {
        f.of().match(this);
        return Optional.of(Kind.TRUTH);
    }

    @Override
    public Optional<Kind> choose(Formula.Choose f) {
        need(Kind.TRUTH, f.when(), f);
        return same(f.then(), f.otherwise(), f);
    }

    @Override
    public Optional<Kind> row(Formula.Row f) {
        return Optional.of(Kind.NUMBER);
    }

    @Override
    public Optional<Kind> whole(Formula.Whole f) {
        if (f.fold() == Formula.Fold.COUNT) {
            f.of().match(this);
        } else {
            need(Kind.NUMBER, f.of(), f);
        }
        return Optional.of(Kind.NUMBER);
    }

    @Override
    public Optional<Kind> running(Formula.Running f) {
        need(Kind.NUMBER, f.of(), f);
        need(Kind.TRUTH, f.restart(), f);
        return Optional.of(Kind.NUMBER);
    }

    @Override
    public Optional<Kind> previous(Formula.Previous f) {
        return all(Kind.NUMBER, f, f.of());
    }

    @Override
    public Optional<Kind> rank(Formula.Rank f) {
        return all(Kind.NUMBER, f, f.of());
    }

    @Override
    public Optional<Kind> period(Formula.Period f) {
        Optional<Kind> of = f.of().match(this);
        if (of.isPresent() && of.get() != Kind.DATE && of.get() != Kind.TEXT) {
            throw mismatch("'" + f.of() + "' is " + of.get().phrase() + ", not a date or the text of a period", f);
        }
        return Optional.of(Kind.NUMBER);
    }

    @Override
    public Optional<Kind> lookup(Formula.Lookup f) {
        return all(Kind.NUMBER, f, f.key(), f.wanted(), f.of());
    }

    @Override
    public Optional<Kind> rounded(Formula.Rounded f) {
        return all(Kind.NUMBER, f, f.of());
    }

    @Override
    public Optional<Kind> day(Formula.Day f) {
        return Optional.of(Kind.DATE);
    }

    @Override
    public Optional<Kind> repeated(Formula.Repeated f) {
        need(Kind.TEXT, f.text(), f);
        need(Kind.NUMBER, f.count(), f);
        return Optional.of(Kind.TEXT);
    }

    @Override
    public Optional<Kind> joined(Formula.Joined f) {
        return all(Kind.TEXT, f, f.left(), f.right());
    }

    @Override
    public Optional<Kind> written(Formula.Written f) {
        f.of().match(this);
        return Optional.of(Kind.TEXT);
    }

    /** The kind, of a formula whose sides must all be of it. */
    private Optional<Kind> all(Kind wanted, Formula whole, Formula... sides) {
        for (Formula side : sides) {
            need(wanted, side, whole);
        }
        return Optional.of(wanted);
    }

    private void need(Kind wanted, Formula side, Formula whole) {
        Optional<Kind> found = side.match(this);
        if (found.isPresent() && found.get() != wanted) {
            if (wanted == Kind.NUMBER) {
                refuseFewTexts(side);
            }
            throw mismatch("'" + side + "' is " + found.get().phrase() + ", not " + wanted.phrase(), whole);
        }
    }

    private Optional<Kind> same(Formula left, Formula right, Formula whole) {
        Optional<Kind> a = left.match(this);
        Optional<Kind> b = right.match(this);
        if (a.isPresent() && b.isPresent() && !a.equals(b)) {
            if (a.get() == Kind.NUMBER || b.get() == Kind.NUMBER) {
                refuseFewTexts(left);
                refuseFewTexts(right);
            }
            throw mismatch("'" + left + "' is " + a.get().phrase() + " and '" + right + "' is " + b.get().phrase()
                    + "; they must be of one kind", whole);
        }
        return a.isPresent() ? a : b;
    }

    /** Where just a few cells keep a column from being one of numbers, they are what is wrong. */
    private void refuseFewTexts(Formula side) {
        if (side instanceof Formula.Input input) {
            RowProblems.refuseFewTexts(scope.inputs(), scope.input(input.column()));
        }
    }

    private BadInput mismatch(String message, Formula whole) {
        return new BadInput(scope.inputs().place(), message + " (in: " + whole + ")");
    }
}
