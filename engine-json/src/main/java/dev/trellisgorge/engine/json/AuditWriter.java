package dev.trellisgorge.engine.json;

import com.fasterxml.jackson.core.JsonGenerator;
import dev.trellisgorge.audit.Audit;
import dev.trellisgorge.audit.Proof;
import dev.trellisgorge.problem.Note;
import dev.trellisgorge.table.Numbers;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;

/** Writes audits for other programs, in UTF-8. Streams are flushed and left open. Thread-safe: it holds no state. */
public final class AuditWriter {
    private AuditWriter() {
    }

    /**
     * One JSON object: each chart's name with {@code holds}, its {@code identities} ({@code statement}, {@code rows} that it
     * must hold on, {@code held}, and {@code failures} with {@code row}, {@code left} and {@code right}, null where a side
     * is absent) and its {@code notes} ({@code sentence}, {@code rows}).
     */
    public static void json(List<Audit> audits, OutputStream out) throws IOException {
        JsonGenerator json = PageWriter.generator(out);
        json.writeStartObject();
        for (Audit audit : audits) {
            json.writeObjectFieldStart(audit.chart().name());
            json.writeBooleanField("holds", audit.holds());
            json.writeArrayFieldStart("identities");
            for (Proof proof : audit.proofs()) {
                proof(proof, json);
            }
            json.writeEndArray();
            json.writeArrayFieldStart("notes");
            for (Note note : audit.notes()) {
                json.writeStartObject();
                json.writeStringField("sentence", note.sentence());
                json.writeArrayFieldStart("rows");
                for (String row : note.rows()) {
                    json.writeString(row);
                }
                json.writeEndArray();
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndObject();
        json.writeRaw('\n');
        json.flush();
    }

    private static void proof(Proof proof, JsonGenerator json) throws IOException {
        json.writeStartObject();
        json.writeStringField("statement", proof.statement());
        json.writeNumberField("rows", proof.rows());
        json.writeNumberField("held", proof.rowsHeld());
        json.writeArrayFieldStart("failures");
        for (Proof.Failure failure : proof.failures()) {
            json.writeStartObject();
            json.writeStringField("row", failure.category());
            side("left", failure.left(), json);
            side("right", failure.right(), json);
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void side(String name, double figure, JsonGenerator json) throws IOException {
        json.writeFieldName(name);
        if (Double.isFinite(figure)) {
            json.writeNumber(Numbers.shortest(figure));
        } else {
            json.writeNull();
        }
    }
}
