package dev.trellisgorge.formula;

import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.problem.ProblemKind;
import dev.trellisgorge.table.Field;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.RowProblems;
import dev.trellisgorge.table.Schema;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Finds the kind of each node of a formula over a {@link Schema}, before a cell is read, and refuses a formula whose sides
 * don't go together. Not thread-safe.
 *
 * <p>A typed formula is an ordinary one in which each {@link Leaf.Absent} has its kind and equal subtrees are one object, so
 * that back ends ask for a node's kind, and find out that they have met it, in constant time.
 */
public final class Typing {
    private final Schema schema;
    private final Map<String, Kind> computed = new LinkedHashMap<>();
    private final Settings settings;
    private final Map<Formula, Optional<Kind>> found = new IdentityHashMap<>();
    private final Map<Formula, Formula> typed = new IdentityHashMap<>();
    private final Map<String, Formula> nodes = new HashMap<>();
    private final Map<Formula, Integer> numbers = new IdentityHashMap<>();
    private final Map<Formula, Kind> kinds = new IdentityHashMap<>();

    /** @param settings whose names formulas may use, with their kinds; the values are not read */
    public Typing(Schema schema, Settings settings) {
        this.schema = Objects.requireNonNull(schema, "schema");
        this.settings = Objects.requireNonNull(settings, "settings");
    }

    /** Makes a computed column known to the formulas that follow. */
    public void computed(String name, Kind kind) {
        computed.put(name, kind);
    }

    /** The kinds of the computed columns so far. */
    public Map<String, Kind> computed() {
        return Collections.unmodifiableMap(computed);
    }

    public Schema schema() {
        return schema;
    }

    /**
     * The kind of a formula's cells; empty where it is always absent.
     *
     * @throws BadInput where a name is unknown or sides are of kinds that don't go together
     */
    public Optional<Kind> kind(Formula formula) {
        Optional<Kind> kind = found.get(formula);
        if (kind == null) {
            kind = signature(formula).kind();
            found.put(formula, kind);
        }
        return kind;
    }

    /** The typed formula; numbers where it is always absent. Errors as {@link #kind}. */
    public Formula typed(Formula formula) {
        return typed(formula, kind(formula).orElse(Kind.NUMBER));
    }

    /** The kind of a node of a formula that {@link #typed} gave. */
    public Kind of(Formula node) {
        Kind kind = kinds.get(node);
        if (kind == null) {
            throw new IllegalStateException("not a typed formula: " + node);
        }
        return kind;
    }

    /** Whether a node of a typed formula {@linkplain Formula#failsOn may have no value} though all of its operands have one. */
    public boolean fails(Formula node) {
        return node.failsOn(node.operands().stream().map(this::of).toList());
    }

    /** Calls the back end's method for a node of a typed formula, with its kind. */
    public <R> R match(Formula node, Formula.Cases<R> cases) {
        return node.match(cases, of(node));
    }

    /** The typed formula; of the wanted kind where it is always absent. */
    Formula typed(Formula formula, Kind wanted) {
        if (kind(formula).isEmpty()) { // always absent, whatever it is made of
            return node(new Leaf.Absent(), wanted, "absent " + wanted);
        }
        Formula known = typed.get(formula);
        if (known != null) {
            return known;
        }
        Signature signature = signature(formula);
        List<Formula> given = formula.operands();
        List<Formula> operands = new ArrayList<>();
        for (int i = 0; i < given.size(); i++) {
            operands.add(typed(given.get(i), signature.operands().get(i).orElse(wanted)));
        }
        Formula shallow = operands.isEmpty() ? formula : formula.rebuilt(operands.stream().map(this::placeholder).toList());
        Formula made = nodes.get(written(shallow));
        if (made == null) {
            made = node(operands.isEmpty() ? formula : formula.rebuilt(operands), signature.kind().orElse(wanted), written(shallow));
        }
        typed.put(formula, made);
        return made;
    }

    /** Stands in for an operand, so that nodes are the same where they are of one kind over the same operands. */
    private Formula placeholder(Formula node) {
        return new Leaf.Setting("#" + numbers.get(node));
    }

    /** A node as text, which nodes are compared by: much quicker at a start than by their parts. */
    private static String written(Formula shallow) {
        return shallow.getClass().getName() + " " + shallow;
    }

    private Formula node(Formula formula, Kind kind, String written) {
        return nodes.computeIfAbsent(written, key -> {
            Formula own = formula instanceof Leaf.Absent ? new Leaf.Absent() : formula;
            numbers.put(own, numbers.size());
            kinds.put(own, kind);
            found.put(own, formula instanceof Leaf.Absent ? Optional.empty() : Optional.of(kind));
            typed.put(own, own);
            return own;
        });
    }

    /** What a node is, and what its operands must be: empty where any kind is right. */
    record Signature(Optional<Kind> kind, List<Optional<Kind>> operands) {
    }

    private Signature signature(Formula formula) {
        return formula.match(new Signatures(this), null);
    }

    Kind columnKind(String name) {
        return schema.field(name).kind();
    }

    Kind computedKind(String name) {
        Kind kind = computed.get(name);
        if (kind == null) {
            throw new IllegalStateException("column '" + name + "' is used before it is computed; so far: " + computed.keySet());
        }
        return kind;
    }

    Kind settingKind(String name) {
        return settings.kind(name);
    }

    /** The operands' one kind, of a formula whose operands must all be of it. */
    Optional<Kind> need(Kind wanted, Formula side, Formula whole) {
        Optional<Kind> kind = kind(side);
        if (kind.isPresent() && kind.get() != wanted) {
            if (wanted == Kind.NUMBER) {
                refuseFewTexts(side);
            }
            throw mismatch("'" + side + "' is " + kind.get().phrase() + ", not " + wanted.phrase(), whole);
        }
        return Optional.of(wanted);
    }

    /** The kind that several sides share; empty where all are always absent. */
    Optional<Kind> same(List<Formula> sides, Formula whole) {
        Formula first = null;
        for (Formula side : sides) {
            Optional<Kind> kind = kind(side);
            if (kind.isPresent() && first == null) {
                first = side;
            } else if (kind.isPresent() && !kind.equals(kind(first))) {
                if (kind.get() == Kind.NUMBER || kind(first).get() == Kind.NUMBER) {
                    sides.forEach(this::refuseFewTexts);
                }
                throw mismatch("'" + first + "' is " + kind(first).get().phrase() + " and '" + side + "' is " + kind.get().phrase()
                        + "; they must be of one kind", whole);
            }
        }
        return first == null ? Optional.empty() : kind(first);
    }

    /** Where just a few cells keep a column from being one of numbers, they are what is wrong. */
    private void refuseFewTexts(Formula side) {
        if (side instanceof Leaf.Column column && schema.find(column.name()).map(Field::kind).filter(kind -> kind == Kind.TEXT).isPresent()) {
            RowProblems.refuseFewTexts(schema, column.name());
        }
    }

    BadInput mismatch(String message, Formula whole) {
        return new BadInput(schema.place(), ProblemKind.SYNTAX, message + " (in: " + whole + ")");
    }

    @Override
    public String toString() {
        return schema + " and " + computed.keySet().stream().collect(Collectors.joining(", "));
    }
}
