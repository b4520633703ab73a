package dev.trellisgorge.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.brief.Brief;
import dev.trellisgorge.engine.workbook.Office;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.test.TestSize;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The helper sheets of every demo brief, worked out anew by another program, are what {@code gorge series} prints. */
@Test(groups = TestSize.SLOW)
public class DemoWorkbooksTest {
    private static final int NAMES = 3;
    private static final int FIRST = 6;
    private static final List<String> SLICES = List.of("slice", "size", "role");
    private static final double CLOSE = 1e-9;
    /** Every sheet as a file of its own, cells as they are and not as they are shown. */
    private static final String SHEETS = "csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,false,false,false,false,-1";

    static List<List<String>> csv(String text) {
        List<List<String>> lines = new ArrayList<>();
        List<String> line = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < text.length(); i++) {
            char character = text.charAt(i);
            if (quoted && character == '"' && i + 1 < text.length() && text.charAt(i + 1) == '"') {
                cell.append(text.charAt(++i));
            } else if (character == '"') {
                quoted = !quoted;
            } else if (!quoted && (character == ',' || character == '\n')) {
                line.add(cell.toString());
                cell.setLength(0);
                if (character == '\n') {
                    lines.add(line);
                    line = new ArrayList<>();
                }
            } else if (character != '\r') {
                cell.append(character);
            }
        }
        return lines;
    }

    private static boolean isSame(String sheet, String series) {
        if (series.isEmpty() || sheet.startsWith("#")) {
            return series.isEmpty() && (sheet.equals("#N/A") || sheet.isEmpty());
        }
        try {
            double wanted = Double.parseDouble(series);
            return Math.abs(Double.parseDouble(sheet) - wanted) <= CLOSE * Math.max(1, Math.abs(wanted));
        } catch (NumberFormatException text) {
            return sheet.equals(series);
        }
    }

    @DataProvider
    public Object[][] kinds() {
        return new Object[][] {{"xlsx"}, {"ods"}};
    }

    @Test(dataProvider = "kinds")
    public void helperSheetsOfEveryDemoBriefAreItsSeriesAfterAnotherProgramWorkedThemOut(String kind) throws Exception {
        Office.require();
        try (Desk desk = new Desk().withDemo()) {
            List<String> briefs;
            try (Stream<Path> files = Files.list(desk.path("demo"))) {
                briefs = files.map(file -> file.getFileName().toString()).filter(name -> name.endsWith(".yaml")).map(name -> name.replace(".yaml", "")).sorted().toList();
            }
            for (String brief : briefs) {
                assertThat(desk.type("draw", "DESK/demo/" + brief + ".yaml", "-o", "DESK/" + brief + "." + kind).code()).isZero();
            }
            Office.convert(briefs.stream().map(brief -> desk.path(brief + "." + kind)).toList(), SHEETS, desk.path("sheets"));
            int compared = 0;
            for (String brief : briefs) {
                for (Chart chart : Brief.read(desk.path("demo/" + brief + ".yaml")).charts()) {
                    List<List<String>> series = csv(desk.type("series", "DESK/demo/" + brief + ".yaml", "--chart", chart.name(), "--as", "csv").out());
                    if (series.get(0).equals(SLICES)) {
                        continue; // of a ring, whose slices stand below each other: printed otherwise
                    }
                    List<List<String>> sheet = csv(Files.readString(desk.path("sheets/" + brief + "-" + chart.name() + " series.csv")));
                    for (int column = 1; column < series.get(0).size(); column++) {
                        int at = sheet.get(NAMES).indexOf(series.get(0).get(column));
                        assertThat(at).as("%s: %s has the column %s", brief, chart.name(), series.get(0).get(column)).isPositive();
                        for (int row = 1; row < series.size(); row++) {
                            String found = sheet.get(FIRST + row - 1).get(at);
                            assertThat(isSame(found, series.get(row).get(column))).as("%s: %s, %s, row %d: %s for %s", brief, chart.name(), series.get(0).get(column), row, found, series.get(row).get(column)).isTrue();
                            compared++;
                        }
                    }
                }
            }
            assertThat(compared).isGreaterThan(500);
        }
    }
}
