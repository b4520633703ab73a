package dev.trellisgorge.engine.json;

import com.fasterxml.jackson.core.JsonGenerator;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.Identity;
import dev.trellisgorge.plan.Plan;
import dev.trellisgorge.plan.Refusal;
import dev.trellisgorge.plan.RowWarning;
import dev.trellisgorge.shape.SortKey;
import dev.trellisgorge.shape.Step;
import dev.trellisgorge.table.Field;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Locale;

/** Writes plans for other programs, in UTF-8. Streams are flushed and left open. Thread-safe: it holds no state. */
public final class PlanWriter {
    private PlanWriter() {
    }

    /**
     * One JSON object: each chart's name with its {@code source}, its {@code steps} as sentences, what its rows are in the
     * {@code order} of (then as they stand in the source), the {@code table} that the steps make ({@code name} and {@code kind} of
     * each column), the {@code category}, the computed {@code columns} ({@code name}, {@code kind}, {@code use} and
     * {@code formula}), the {@code identities} ({@code statement}, {@code where}, {@code left}, {@code right}), and the
     * sentences that it may {@code tell} and {@code refuse} rows with.
     */
    public static void json(List<Plan> plans, OutputStream out) throws IOException {
        JsonGenerator json = PageWriter.generator(out);
        json.writeStartObject();
        for (Plan plan : plans) {
            json.writeObjectFieldStart(plan.name());
            plan(plan, json);
            json.writeEndObject();
        }
        json.writeEndObject();
        json.writeRaw('\n');
        json.flush();
    }

    private static void plan(Plan plan, JsonGenerator json) throws IOException {
        json.writeStringField("source", plan.pipeline().source());
        texts("steps", plan.pipeline().steps().stream().map(Step::sentence).toList(), json);
        texts("order", plan.pipeline().order().stream().map(SortKey::toString).toList(), json);
        json.writeArrayFieldStart("table");
        for (Field field : plan.schema().fields()) {
            json.writeStartObject();
            json.writeStringField("name", field.name());
            json.writeStringField("kind", word(field.kind()));
            json.writeEndObject();
        }
        json.writeEndArray();
        if (plan.category().isPresent()) {
            json.writeStringField("category", plan.category().get());
        }
        json.writeArrayFieldStart("columns");
        for (Derived column : plan.columns()) {
            json.writeStartObject();
            json.writeStringField("name", column.name());
            json.writeStringField("kind", word(plan.kind(column.name())));
            json.writeStringField("use", word(column.use()));
            json.writeStringField("formula", column.formula().toString());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("identities");
        for (Identity identity : plan.identities()) {
            json.writeStartObject();
            json.writeStringField("statement", identity.statement());
            json.writeStringField("where", identity.where().toString());
            json.writeStringField("left", identity.left().toString());
            json.writeStringField("right", identity.right().toString());
            json.writeEndObject();
        }
        json.writeEndArray();
        texts("tell", plan.watches().stream().map(RowWarning::sentence).toList(), json);
        texts("refuse", plan.refusals().stream().map(Refusal::expected).toList(), json);
    }

    private static void texts(String name, List<String> texts, JsonGenerator json) throws IOException {
        json.writeArrayFieldStart(name);
        for (String text : texts) {
            json.writeString(text);
        }
        json.writeEndArray();
    }

    private static String word(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT);
    }
}
