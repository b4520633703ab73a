package dev.trellisgorge.formula;

import dev.trellisgorge.formula.Stages.Stage;
import dev.trellisgorge.formula.Stages.StageColumn;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * Stages as the evaluator takes them: in groups of columns that one pass over the rows fills. Made once for all rows that it is
 * run over. Immutable and thread-safe.
 */
public final class Program {
    private final Typing typing;
    private final List<Group> groups;
    private final Set<String> kept;
    private final List<StageColumn> wanted;

    /**
     * Columns of one pass; those that need all rows of others before them are computed by themselves.
     *
     * @param alone   whether it is one column that reads whole columns
     * @param inOrder whether something is carried on from row to row
     */
    record Group(List<StageColumn> columns, boolean alone, boolean inOrder) {
    }

    private Program(Stages stages, Typing typing) {
        this.typing = Objects.requireNonNull(typing, "typing");
        this.groups = groups(stages);
        this.kept = kept(groups);
        this.wanted = stages.columns().stream().filter(StageColumn::wanted).toList();
    }

    /** @param typing what the stages were made with */
    public static Program of(Stages stages, Typing typing) {
        return new Program(stages, typing);
    }

    Typing typing() {
        return typing;
    }

    List<Group> groups() {
        return groups;
    }

    /** Whether a column's cells must outlive their pass. */
    boolean isKept(String column) {
        return kept.contains(column);
    }

    List<StageColumn> wanted() {
        return wanted;
    }

    private static List<Group> groups(Stages stages) {
        List<Group> groups = new ArrayList<>();
        List<StageColumn> open = new ArrayList<>();
        Set<String> folding = new HashSet<>();
        for (Stage stage : stages.all()) {
            for (StageColumn column : stage.columns()) {
                boolean alone = column.formula() instanceof Window.Rank || column.formula() instanceof Window.Lookup;
                if (alone || ColumnReferences.computed(column.formula()).stream().anyMatch(folding::contains)) {
                    close(groups, open);
                    open = new ArrayList<>();
                    folding.clear();
                }
                if (alone) {
                    groups.add(new Group(List.of(column), true, false));
                    continue;
                }
                if (column.formula() instanceof Window.Aggregate) {
                    folding.add(column.name());
                }
                open.add(column);
            }
        }
        close(groups, open);
        return List.copyOf(groups);
    }

    private static void close(List<Group> groups, List<StageColumn> open) {
        if (!open.isEmpty()) {
            groups.add(new Group(List.copyOf(open), false, open.stream().anyMatch(column -> column.formula() instanceof Window)));
        }
    }

    private static Set<String> kept(List<Group> groups) {
        Set<String> kept = new HashSet<>();
        Map<String, Integer> madeIn = new HashMap<>();
        for (int i = 0; i < groups.size(); i++) {
            for (StageColumn column : groups.get(i).columns()) {
                madeIn.put(column.name(), i);
                int here = i;
                ColumnReferences.computed(column.formula()).stream().filter(read -> madeIn.getOrDefault(read, here) != here).forEach(kept::add);
                if (column.wanted()) {
                    kept.add(column.name());
                }
            }
        }
        return kept;
    }
}
