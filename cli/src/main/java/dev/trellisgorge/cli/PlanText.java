package dev.trellisgorge.cli;

import dev.trellisgorge.formula.ColumnReferences;
import dev.trellisgorge.plan.Carried;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.DisplayWidth;
import dev.trellisgorge.table.Field;
import java.io.PrintStream;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Prints a plan for people: the steps as sentences, each computed column with its formula and what it is for, what must hold. */
record PlanText(PrintStream out) {
    private static final int LISTED = 3;

    void print(Plan plan) {
        out.println(plan.name());
        out.println("  from the table " + plan.pipeline().source());
        int number = 1;
        for (Step step : plan.pipeline().steps()) {
            out.println("    " + number++ + ". " + step.sentence());
        }
        out.println("  rows: one for each " + plan.category().orElse("row that is left") + ", " + plan.pipeline().orderSentence());
        out.println("  columns of the table: " + plan.schema().fields().stream().map(Field::toString).collect(Collectors.joining(", ")));
        out.println("  computed");
        int width = plan.columns().stream().mapToInt(column -> DisplayWidth.of(column.name())).max().orElse(0);
        for (Derived column : plan.columns()) {
            String room = " ".repeat(width - DisplayWidth.of(column.name()));
            out.println("    " + column.name() + room + "  = " + column.formula());
            out.println("    " + " ".repeat(width) + "    " + use(plan, column));
        }
        listed("must hold", Stream.concat(plan.identities().stream().map(Identity::statement), plan.carried().stream().map(Carried::statement)));
        listed("reported where it applies", plan.watches().stream().map(RowWarning::sentence).distinct());
    }

    private void listed(String heading, Stream<String> lines) {
        List<String> all = lines.toList();
        if (!all.isEmpty()) {
            out.println("  " + heading);
            all.forEach(line -> out.println("    " + line));
        }
    }

    private static String use(Plan plan, Derived column) {
        List<String> readers = new ArrayList<>(plan.columns().stream().filter(other -> ColumnReferences.computed(other.formula()).contains(column.name())).map(Derived::name).toList());
        String read = readers.isEmpty() ? "" : "read by " + String.join(", ", readers.stream().limit(LISTED).toList())
                + (readers.size() > LISTED ? " and " + (readers.size() - LISTED) + " more" : "");
        return switch (column.use()) {
            case SERIES -> "series" + (read.isEmpty() ? "" : ", " + read);
            case WORKING -> read.isEmpty() ? "for identities, notes and readers" : read;
            case LABEL -> "for labels and the drawing" + (read.isEmpty() ? "" : ", " + read);
        };
    }
}
