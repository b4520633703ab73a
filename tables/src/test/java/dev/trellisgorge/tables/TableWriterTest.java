package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.Test;

public class TableWriterTest {
    private static final Table TABLE = Table.of("t", Column.texts("the \"name\", quoted", "Mühle, old", null),
            Column.numbers("figure", 0.1, Double.NaN), Column.dates("day", LocalDate.of(2031, 3, 1), null),
            Column.truths("open", true, null));

    private static String csv(Table table) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        TableWriter.csv(table, out);
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    public void csvFollowsTheStandard() throws IOException {
        assertThat(csv(TABLE)).isEqualTo("\"the \"\"name\"\", quoted\",figure,day,open\r\n\"Mühle, old\",0.1,2031-03-01,true\r\n,,,\r\n");
    }

    @Test
    public void jsonKeepsKindsAndMissingIsNull() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        TableWriter.json(Map.of("march", TABLE), out);
        StringBuilder values = new StringBuilder();
        try (JsonParser json = new JsonFactory().createParser(out.toByteArray())) {
            for (JsonToken token = json.nextToken(); token != null; token = json.nextToken()) {
                values.append(token.isScalarValue() ? json.getText() + (token == JsonToken.VALUE_STRING ? "' " : " ") : "");
            }
        }
        assertThat(values).hasToString("Mühle, old' 0.1 2031-03-01' true null null null null ");
    }

    @Test
    public void everyFigureReadsBackToTheSameDouble() throws IOException {
        Random random = new Random(3);
        double[] figures = random.longs(5_000).mapToDouble(Double::longBitsToDouble).map(d -> Double.isFinite(d) ? d : Double.NaN).toArray();
        Column written = Column.numbers("figure", figures);
        String[] names = new String[figures.length];
        Arrays.setAll(names, i -> "r" + i);
        Path file = Files.createTempFile("gorge", ".csv");
        try {
            Files.writeString(file, csv(Table.of("t", Column.texts("name", names), written)));
            Column read = DelimitedText.read("t", file).column("figure");
            for (int row = 0; row < figures.length; row++) {
                assertThat((Double) read.number(row)).isEqualTo((Double) written.number(row));
            }
        } finally {
            Files.delete(file);
        }
    }
}
