package dev.trellisgorge.engine.workbook;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.chart.Size;
import dev.trellisgorge.conformance.RandomPlan;
import dev.trellisgorge.conformance.RandomPlan.Within;
import dev.trellisgorge.engine.Engine;
import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Lowering;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.plan.ComputedColumns;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.problem.BadInput;
import dev.trellisgorge.table.Kind;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.FormulaError;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;

/** Helper sheets of random plans, held to the oracle: every column of a plan, once another program has computed it anew. */
public final class PlanSheets {
    private static final int A_BOOK = 40;
    private static final int LONGEST = 8_192;
    private static final double CLOSE = 1e-9;

    private PlanSheets() {
    }

    /** What a cell holds; null where absent. */
    public interface Value {
        Object of(Cell cell);
    }

    /** A plan and its chart. */
    public record Drawn(RandomPlan random, PlainChart chart) {
    }

    /** Holds plans, drawn as files of a kind and recalculated by a spreadsheet program, to the oracle. @return how many columns */
    public static int recalculated(int plans, String kind, Engine engine) throws Exception {
        Office.require();
        List<List<Drawn>> books = books(plans, Within.SHEET);
        List<Path> files = new ArrayList<>();
        List<Path> saved = new ArrayList<>();
        int columns = 0;
        try {
            for (List<Drawn> book : books) {
                files.add(drawn(book, kind));
            }
            saved.addAll(Office.recalculated(files));
            for (int i = 0; i < books.size(); i++) {
                try (InputStream in = Files.newInputStream(saved.get(i)); XSSFWorkbook workbook = new XSSFWorkbook(in)) {
                    for (Drawn each : books.get(i)) {
                        columns += assertHolds(workbook.getSheet(each.chart().name() + " series"), each, engine, PlanSheets::saved);
                    }
                }
            }
            return columns;
        } finally {
            files.forEach(file -> file.toFile().delete());
            saved.forEach(file -> file.toFile().delete());
        }
    }

    /** So many plans, without those whose rows no chart can show. */
    public static List<List<Drawn>> books(int plans, Within within) {
        List<List<Drawn>> books = new ArrayList<>();
        int made = 0;
        for (long seed = 0; made < plans; seed++) {
            RandomPlan random = RandomPlan.of(seed, within);
            Optional<PlainChart> chart = chart(random);
            if (chart.isPresent()) {
                if (made++ % A_BOOK == 0) {
                    books.add(new ArrayList<>());
                }
                books.get(books.size() - 1).add(new Drawn(random, chart.get()));
            }
        }
        return books;
    }

    private static Optional<PlainChart> chart(RandomPlan random) {
        try {
            return Optional.of(random.plan().over(random.executor())).filter(chart -> chart.data().rowCount() > 0);
        } catch (BadInput refused) {
            return Optional.empty();
        }
    }

    /** A file of a kind with all of them. */
    public static Path drawn(List<Drawn> book, String ending) throws IOException {
        Path file = Files.createTempFile("plans", "." + ending);
        Engines.draw(book.stream().map(each -> Page.of(each.chart())).toList(), file, Size.STANDARD);
        return file;
    }

    /** How many columns were compared: all of the plan's, but for the words of labels, which stand beside as readers see them. */
    public static int assertHolds(Sheet sheet, Drawn drawn, Engine engine, Value value) {
        List<PlainChart> lowered = new Lowering(engine.abilities()).lower(drawn.chart());
        ComputedColumns data = lowered.get(lowered.size() - 1).data();
        Set<String> wording = data.plan().wording();
        List<String> names = new ArrayList<>(data.plan().series());
        data.plan().columns().stream().map(Derived::name).filter(name -> !names.contains(name) && !wording.contains(name)).forEach(names::add);
        Map<String, List<Object>> naive = drawn.random().naive();
        Map<String, List<Object>> expected = new LinkedHashMap<>();
        for (String name : names) {
            List<Object> own = new ArrayList<>();
            for (int row = 0; row < data.rowCount(); row++) {
                own.add(RandomPlan.cell(data.column(name), row));
            }
            expected.put(name, naive.getOrDefault(name, own)); // what the engine adds has no oracle
        }
        sheet.forEach(line -> line.forEach(cell -> assertThat(cell.getCellType() == CellType.FORMULA ? cell.getCellFormula().length() : 0).isLessThanOrEqualTo(LONGEST)));
        for (int i = 0; i < names.size(); i++) {
            for (int row = 0; row < data.rowCount(); row++) {
                Cell cell = HelperCells.cell(sheet, names.get(i), row);
                assertSame(drawn, names.get(i), row, cell, value.of(cell), expected.get(names.get(i)).get(row), data.column(names.get(i)).kind());
            }
        }
        assertThat(names).containsAll(naive.keySet().stream().filter(name -> !name.startsWith("table: ") && !wording.contains(name)).toList());
        return names.size();
    }

    private static void assertSame(Drawn drawn, String name, int row, Cell cell, Object held, Object expected, Kind kind) {
        Object found = kind == Kind.TRUTH && held instanceof Double figure && (figure == 0 || figure == 1) ? (Object) (figure == 1) : held; // some programs hold truths as figures
        Object wanted = expected instanceof LocalDate day ? (Object) (double) (day.toEpochDay() - LocalDate.of(1899, 12, 30).toEpochDay()) : expected;
        boolean same = wanted instanceof Double figure && found instanceof Double other ? Math.abs(figure - other) <= CLOSE * Math.max(1, Math.abs(figure))
                : Objects.equals(wanted, found);
        assertThat(same).as("%s, row %d: %s is %s, not %s (%s)%n%s%n%s", drawn.chart().name(), row, name, found, wanted, kind,
                drawn.chart().plan().columns().stream().filter(column -> column.name().equals(name)).map(Derived::formula).toList(), cell.getCellFormula()).isTrue();
    }

    /** What is saved beside a cell's formula; null where absent. */
    public static Object saved(Cell cell) {
        CellType type = cell.getCellType() == CellType.FORMULA ? cell.getCachedFormulaResultType() : cell.getCellType();
        return switch (type) {
            case NUMERIC -> (Object) cell.getNumericCellValue();
            case BOOLEAN -> cell.getBooleanCellValue();
            case STRING -> cell.getStringCellValue();
            case ERROR -> cell.getErrorCellValue() == FormulaError.NA.getCode() ? null : "the error " + FormulaError.forInt(cell.getErrorCellValue());
            default -> "";
        };
    }
}
