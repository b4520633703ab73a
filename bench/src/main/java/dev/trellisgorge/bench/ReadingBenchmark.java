package dev.trellisgorge.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.shape.Executor;
import dev.trellisgorge.shape.Pipeline;
import dev.trellisgorge.shape.Total;
import dev.trellisgorge.table.Table;
import dev.trellisgorge.tables.TableFile;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/** A delimited text read, kept and totalled in a heap of 512 MB, and a bare loop over its records that parses the same columns and totals. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(value = 1, jvmArgs = "-Xmx512m")
@Warmup(iterations = 2, time = 1)
@Measurement(iterations = 4, time = 1)
public class ReadingBenchmark {
    private static final LocalDate FIRST = LocalDate.of(2031, 1, 1);
    private static final int STATIONS = 8;

    /** Rows of the file that is made where none is named. */
    @Param({"500000", "5000000"})
    private int rows;

    /** A file with such columns; the script {@code gigabyte} makes one. */
    @Param("")
    private String file;

    private Path read;

    @Setup
    public void make() throws IOException {
        read = file.isEmpty() ? Files.createTempFile("readings", ".csv") : Path.of(file);
        if (!file.isEmpty()) {
            return;
        }
        try (BufferedWriter out = Files.newBufferedWriter(read)) {
            out.write("day,station,mwh\n");
            for (int row = 0; row < rows; row++) {
                out.write(FIRST.plusDays(row % 365) + ",Station " + row % STATIONS + "," + row % 1000 * 0.25 + "\n");
            }
        }
    }

    @TearDown
    public void delete() throws IOException {
        if (file.isEmpty()) {
            Files.delete(read);
        }
    }

    @Benchmark
    public Object readAndTotal() {
        Table table = TableFile.read("readings", read);
        return Executor.over(table, Settings.NONE).run(Pipeline.of("readings").then(new Total(List.of("station"), List.of(new Total.Figure("mwh", Total.Fold.SUM, "mwh")))));
    }

    @Benchmark
    public Object bareLoop() throws IOException {
        Map<String, Double> totals = new HashMap<>();
        double days = 0;
        try (CsvReader<CsvRecord> records = CsvReader.builder().ofCsvRecord(read)) {
            boolean header = true;
            for (CsvRecord record : records) {
                if (!header) {
                    days += LocalDate.parse(record.getField(0)).toEpochDay();
                    totals.merge(record.getField(1), Double.parseDouble(record.getField(2)), Double::sum);
                }
                header = false;
            }
        }
        totals.put("days", days);
        return totals;
    }
}
