package dev.trellisgorge.cli;

import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.audit.Proof;
import dev.trellisgorge.table.Numbers;
import java.io.PrintStream;

/** Prints an audit for people: each identity with the rows it holds on, each failure, then the notes. */
record AuditText(PrintStream out) {
    private static final int LISTED = 10;

    void print(Audit audit) {
        out.println(audit.chart().name() + " (" + rows(audit.chart().data().rowCount()) + ")");
        for (Proof proof : audit.proofs()) {
            out.println("  " + (proof.holds() ? "holds" : "FAILS") + "  " + (proof.rows() == 0 ? "on no row" : "on " + proof.rowsHeld() + " of " + rows(proof.rows()))
                    + ": " + proof.statement());
            proof.failures().stream().limit(LISTED).forEach(this::print);
            if (proof.failures().size() > LISTED) {
                out.println("         and " + rows(proof.failures().size() - LISTED) + " more");
            }
        }
        audit.notes().forEach(note -> out.println("  note   " + note));
    }

    private void print(Proof.Failure failure) {
        out.println("         " + failure.category() + ": the pieces come to " + figure(failure.left()) + ", not "
                + figure(failure.right()) + difference(failure));
    }

    private static String difference(Proof.Failure failure) {
        double difference = failure.left() - failure.right();
        return Double.isNaN(difference) ? "" : " (a difference of " + Numbers.brief(difference) + ")";
    }

    private static String figure(double figure) {
        return Double.isNaN(figure) ? "nothing" : Numbers.shortest(figure);
    }

    private static String rows(int count) {
        return count == 1 ? "1 row" : count + " rows";
    }
}
