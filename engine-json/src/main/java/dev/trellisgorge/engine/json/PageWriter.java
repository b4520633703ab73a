package dev.trellisgorge.engine.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import dev.trellisgorge.chart.BarGroup;
import dev.trellisgorge.chart.Color;
import dev.trellisgorge.chart.FigureColumn;
import dev.trellisgorge.chart.Label;
import dev.trellisgorge.chart.Line;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Looks;
import dev.trellisgorge.chart.Panel;
import dev.trellisgorge.chart.Panels;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.chart.Points;
import dev.trellisgorge.chart.ReferenceLine;
import dev.trellisgorge.chart.Ring;
import dev.trellisgorge.chart.Series;
import dev.trellisgorge.chart.Size;
import dev.trellisgorge.chart.TextCells;
import dev.trellisgorge.engine.Tile;
import dev.trellisgorge.plan.Derived;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Kind;
import dev.trellisgorge.table.Numbers;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Writes pages to one stream. */
final class PageWriter {
    private static final int VERSION = 2;

    private final JsonGenerator json;

    /** The stream is left open. */
    PageWriter(OutputStream out) throws IOException {
        this.json = generator(out, new DefaultPrettyPrinter());
    }

    /** One that writes each item of a list on a line of its own. The stream is left open. */
    static JsonGenerator generator(OutputStream out) throws IOException {
        DefaultPrettyPrinter lines = new DefaultPrettyPrinter();
        lines.indentArraysWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE.withLinefeed("\n"));
        return generator(out, lines);
    }

    private static JsonGenerator generator(OutputStream out, DefaultPrettyPrinter lines) throws IOException {
        lines.indentObjectsWith(new DefaultIndenter("  ", "\n"));
        JsonGenerator json = new JsonFactory().createGenerator(out).setPrettyPrinter(lines);
        json.disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET);
        return json;
    }

    private interface Item<T> {
        void write(T item) throws IOException;
    }

    private <T> void list(String name, Iterable<T> items, Item<T> item) throws IOException {
        json.writeArrayFieldStart(name);
        for (T each : items) {
            item.write(each);
        }
        json.writeEndArray();
    }

    void write(List<Page> pages, Size size) throws IOException {
        json.writeStartObject();
        json.writeNumberField("plain-charts", VERSION);
        list("pages", pages, page -> page(page, size));
        json.writeEndObject();
        json.writeRaw('\n');
        json.flush();
    }

    private void page(Page page, Size size) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", page.name());
        json.writeStringField("title", page.title());
        json.writeStringField("subtitle", page.subtitle());
        json.writeStringField("source", page.source());
        looks(page.looks());
        json.writeNumberField("width", size.width());
        json.writeNumberField("height", size.height());
        json.writeNumberField("columns", page.columns());
        list("tiles", page.places(), this::tile);
        json.writeEndObject();
    }

    private void tile(Page.Place place) throws IOException {
        Tile tile = place.tile();
        json.writeStartObject();
        json.writeNumberField("column", place.column());
        json.writeNumberField("row", place.row());
        json.writeNumberField("columns", place.span().columns());
        json.writeNumberField("rows", place.span().rows());
        if (tile instanceof Tile.OfFigure figure) {
            json.writeObjectFieldStart("figure");
            json.writeStringField("title", figure.title());
            json.writeFieldName("value");
            Column cells = figure.data().column(figure.label().column());
            if (cells.size() > 0) {
                cell(cells, 0);
            } else {
                json.writeNull();
            }
            json.writeStringField("written", figure.written());
            json.writeStringField("text", figure.text());
            json.writeEndObject();
        } else {
            json.writeFieldName("chart");
            chart(((Tile.OfChart) tile).parts().get(0));
        }
        json.writeEndObject();
    }

    private void chart(PlainChart chart) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", chart.name());
        json.writeStringField("title", chart.title());
        json.writeStringField("subtitle", chart.subtitle());
        json.writeStringField("alternative", chart.alternative());
        json.writeStringField("orientation", word(chart.orientation()));
        looks(chart.looks());
        if (chart.stamp().isPresent()) {
            json.writeStringField("stamp", chart.stamp().get());
        }
        if (chart.plan().category().isPresent()) {
            json.writeArrayFieldStart("categories");
            for (int row = 0; row < chart.data().rowCount(); row++) {
                json.writeString(chart.categoryText(row));
            }
            json.writeEndArray();
        }
        list("beside", chart.beside(), column -> beside(chart, column));
        json.writeNumberField("rows", chart.data().rowCount());
        json.writeObjectFieldStart("columns");
        Set<String> wording = chart.plan().wording();
        for (Derived column : chart.plan().columns()) {
            if (!wording.contains(column.name())) {
                column(chart, column);
            }
        }
        json.writeEndObject();
        json.writeFieldName("drawing");
        chart.drawing().match(panels -> panels(chart, panels), ring -> ring(chart, ring), texts -> texts(chart, texts));
        json.writeEndObject();
    }

    private void beside(PlainChart chart, FigureColumn column) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", column.name());
        json.writeStringField("column", column.label().column());
        json.writeStringField("format", column.label().format().pattern());
        json.writeArrayFieldStart("texts");
        for (int row = 0; row < chart.data().rowCount(); row++) {
            json.writeString(chart.besideText(column, row));
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void looks(Looks looks) throws IOException {
        json.writeObjectFieldStart("looks");
        if (looks.legend().isPresent()) {
            json.writeStringField("legend", word(looks.legend().get()));
        }
        if (looks.titleAt().isPresent()) {
            json.writeStringField("title-at", word(looks.titleAt().get()));
        }
        for (Looks.Purpose purpose : Looks.Purpose.values()) {
            if (looks.sizes().containsKey(purpose)) {
                json.writeNumberField(word(purpose) + "-size", looks.sizes().get(purpose));
            }
            if (looks.bold().containsKey(purpose)) {
                json.writeBooleanField(word(purpose) + "-bold", looks.bold().get(purpose));
            }
        }
        json.writeEndObject();
    }

    private void column(PlainChart chart, Derived column) throws IOException {
        json.writeObjectFieldStart(column.name());
        json.writeStringField("formula", column.formula().toString());
        json.writeArrayFieldStart("cells");
        Column cells = chart.data().column(column.name());
        for (int row = 0; row < cells.size(); row++) {
            cell(cells, row);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void cell(Column cells, int row) throws IOException {
        if (!cells.isPresent(row)) {
            json.writeNull();
        } else if (cells.kind() == Kind.NUMBER) {
            json.writeNumber(Numbers.shortest(cells.number(row)));
        } else if (cells.kind() == Kind.TRUTH) {
            json.writeBoolean(cells.number(row) == 1);
        } else {
            json.writeString(cells.written(row));
        }
    }

    private void panels(PlainChart chart, Panels panels) throws IOException {
        json.writeStartObject();
        json.writeStringField("kind", "panels");
        json.writeBooleanField("categories-shown", panels.categoriesShown());
        list("panels", panels.panels(), panel -> panel(chart, panel));
        json.writeEndObject();
    }

    private void panel(PlainChart chart, Panel panel) throws IOException {
        PlainChart.Extent extent = chart.extent(panel);
        json.writeStartObject();
        json.writeStringField("heading", panel.heading());
        json.writeNumberField("share", panel.share());
        json.writeObjectFieldStart("scale");
        json.writeNumberField("low", extent.low());
        json.writeNumberField("high", extent.high());
        json.writeBooleanField("backwards", panel.scale().backwards());
        json.writeBooleanField("shown", panel.valueAxisShown());
        json.writeStringField("title", panel.axis().title());
        json.writeStringField("format", panel.axis().format().pattern());
        json.writeEndObject();
        list("lines", panel.lines(), line -> line(chart, line));
        list("bars", panel.bars(), group -> bars(chart, group));
        list("points", panel.points(), points -> points(chart, points));
        list("references", panel.references(), line -> reference(chart, line));
        json.writeEndObject();
    }

    private void line(PlainChart chart, Line line) throws IOException {
        json.writeStartObject();
        json.writeFieldName("series");
        series(chart, line.series());
        json.writeBooleanField("dashed", line.dashed());
        json.writeBooleanField("guide", line.guide());
        json.writeEndObject();
    }

    private void bars(PlainChart chart, BarGroup group) throws IOException {
        json.writeStartObject();
        json.writeStringField("placing", word(group.placing()));
        json.writeNumberField("gap", group.gap());
        list("series", group.series(), series -> series(chart, series));
        json.writeEndObject();
    }

    private void points(PlainChart chart, Points points) throws IOException {
        json.writeStartObject();
        json.writeFieldName("series");
        series(chart, points.series());
        json.writeStringField("shape", word(points.shape()));
        json.writeNumberField("size", points.size());
        json.writeEndObject();
    }

    private void reference(PlainChart chart, ReferenceLine line) throws IOException {
        json.writeStartObject();
        json.writeStringField("name", line.name());
        json.writeNumberField("value", chart.level(line));
        color("color", line.color());
        json.writeEndObject();
    }

    private void ring(PlainChart chart, Ring ring) throws IOException {
        json.writeStartObject();
        json.writeStringField("kind", "ring");
        json.writeNumberField("hole", ring.hole());
        json.writeNumberField("start", ring.start());
        json.writeArrayFieldStart("tracks");
        for (List<Series> track : ring.tracks()) {
            json.writeStartArray();
            for (Series slice : track) {
                series(chart, slice);
            }
            json.writeEndArray();
        }
        json.writeEndArray();
        json.writeFieldName("centre");
        if (ring.centre().isPresent()) {
            series(chart, ring.centre().get());
        } else {
            json.writeNull();
        }
        json.writeEndObject();
    }

    private void texts(PlainChart chart, TextCells texts) throws IOException {
        json.writeStartObject();
        json.writeStringField("kind", "texts");
        list("columns", texts.columns(), column -> {
            json.writeStartObject();
            json.writeBooleanField("flush-end", column.flushEnd());
            list("series", column.series(), series -> series(chart, series));
            json.writeFieldName("rest");
            if (column.rest().isPresent()) {
                series(chart, column.rest().get());
            } else {
                json.writeNull();
            }
            json.writeEndObject();
        });
        json.writeEndObject();
    }

    private void series(PlainChart chart, Series series) throws IOException {
        json.writeStartObject();
        json.writeStringField("column", series.column());
        json.writeStringField("name", series.name());
        json.writeStringField("role", word(series.role()));
        color("fill", series.fill());
        color("outline", series.outline());
        json.writeBooleanField("round", series.round());
        json.writeBooleanField("in-legend", series.inLegend());
        list("labels", series.labels(), label -> label(chart, series, label));
        json.writeEndObject();
    }

    private void label(PlainChart chart, Series series, Label label) throws IOException {
        json.writeStartObject();
        json.writeStringField("column", label.column());
        json.writeStringField("format", label.format().pattern());
        json.writeStringField("at", word(label.at()));
        json.writeArrayFieldStart("texts");
        for (int row = 0; row < chart.data().rowCount(); row++) {
            json.writeString(chart.labelText(series.column(), label, row));
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void color(String name, Optional<Color> color) throws IOException {
        if (color.isPresent()) {
            json.writeStringField(name, color.get().toString());
        } else {
            json.writeNullField(name);
        }
    }

    private static String word(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT);
    }
}
