package dev.trellisgorge.engine.workbook;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.IntUnaryOperator;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Two style sheets as one: those of the second stand behind those of the first, whose numbers stay. Immutable. */
final class HostStyles {
    private static final String MAIN = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    /** The styles of a workbook that states none. */
    static final String PLAIN = "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n<styleSheet xmlns=\"" + MAIN + "\"><fonts count=\"1\"><font><sz val=\"11\"/><name val=\"Calibri\"/></font></fonts>"
            + "<fills count=\"2\"><fill><patternFill patternType=\"none\"/></fill><fill><patternFill patternType=\"gray125\"/></fill></fills><borders count=\"1\"><border/></borders>"
            + "<cellStyleXfs count=\"1\"><xf/></cellStyleXfs><cellXfs count=\"1\"><xf xfId=\"0\"/></cellXfs></styleSheet>";
    private static final int FIRST_FORMAT = 164;
    private static final List<String> ORDER = List.of("numFmts", "fonts", "fills", "borders", "cellStyleXfs", "cellXfs", "cellStyles", "dxfs", "tableStyles", "colors", "extLst");
    private static final Pattern CELL = Pattern.compile("<(c|row|col)(\\s[^>]*?)?(/?)>(<v>(\\d+)</v></c>)?");
    private static final Pattern STYLE = Pattern.compile("(\\s(?:s|style)=\")(\\d+)\"");
    private static final Pattern RULE = Pattern.compile("(<cfRule\\s[^>]*?dxfId=\")(\\d+)\"");

    private final String both;
    private final List<Integer> cells;
    private final List<Integer> rules;

    HostStyles(String first, String second) {
        XmlText text = new XmlText(first);
        XmlText.Element root = text.root();
        XmlText.Element more = new XmlText(second).root();
        Map<Integer, Integer> formats = formats(text, root, more);
        Map<String, List<Integer>> places = new HashMap<>();
        for (String list : List.of("fonts", "fills", "borders", "cellXfs", "dxfs")) {
            List<XmlText.Element> there = root.child(list).map(XmlText.Element::children).orElse(List.of());
            List<String> known = new ArrayList<>(there.stream().map(XmlText.Element::whole).toList());
            List<Integer> at = new ArrayList<>();
            for (XmlText.Element each : more.child(list).map(XmlText.Element::children).orElse(List.of())) {
                String own = list.equals("cellXfs") ? format(each, places, formats) : whole(each);
                if (!known.contains(own)) { // as it is where the same was put in before
                    known.add(own);
                }
                at.add(known.indexOf(own));
            }
            places.put(list, at);
            append(text, root, list, known.subList(there.size(), known.size()));
        }
        this.cells = List.copyOf(places.get("cellXfs"));
        this.rules = List.copyOf(places.get("dxfs"));
        this.both = text.edited();
    }

    private static String whole(XmlText.Element element) {
        XmlText one = new XmlText(element.whole());
        one.attribute(one.root(), "xmlns", MAIN);
        return one.edited();
    }

    /** Number formats by numbers that are free. */
    private static Map<Integer, Integer> formats(XmlText text, XmlText.Element root, XmlText.Element more) {
        int free = root.child("numFmts").map(list -> list.children().stream().flatMap(each -> each.attribute("numFmtId").stream()).mapToInt(Integer::parseInt).max().orElse(0)).orElse(0);
        free = Math.max(FIRST_FORMAT, free + 1);
        Map<Integer, Integer> formats = new HashMap<>();
        List<String> added = new ArrayList<>();
        for (XmlText.Element each : more.child("numFmts").map(XmlText.Element::children).orElse(List.of())) {
            int own = Integer.parseInt(each.attribute("numFmtId").orElseThrow());
            Optional<Integer> there = root.child("numFmts").stream().flatMap(list -> list.children().stream()).filter(known -> known.attribute("formatCode").equals(each.attribute("formatCode")))
                    .flatMap(known -> known.attribute("numFmtId").stream()).map(Integer::parseInt).findFirst();
            formats.put(own, there.orElse(free));
            if (there.isPresent()) {
                continue;
            }
            XmlText one = new XmlText(each.whole());
            one.attribute(one.root(), "numFmtId", String.valueOf(free++));
            added.add(whole(new XmlText(one.edited()).root()));
        }
        append(text, root, "numFmts", added);
        return formats;
    }

    private static String format(XmlText.Element cell, Map<String, List<Integer>> places, Map<Integer, Integer> formats) {
        XmlText one = new XmlText(whole(cell));
        XmlText.Element root = one.root();
        new TreeMap<>(Map.of("fontId", "fonts", "fillId", "fills", "borderId", "borders")).forEach((id, list) -> one.attribute(root, id, String.valueOf(places.get(list).get(root.attribute(id).map(Integer::parseInt).orElse(0)))));
        root.attribute("numFmtId").map(Integer::parseInt).filter(formats::containsKey).ifPresent(id -> one.attribute(root, "numFmtId", String.valueOf(formats.get(id))));
        one.attribute(root, "xfId", "0");
        one.attribute(root, "applyFont", "1");
        one.attribute(root, "applyNumberFormat", "1");
        return one.edited();
    }

    private static void append(XmlText text, XmlText.Element root, String list, List<String> added) {
        if (added.isEmpty()) {
            return;
        }
        Optional<XmlText.Element> there = root.child(list);
        if (there.isPresent()) {
            text.append(there.get(), String.join("", added));
            text.attribute(there.get(), "count", String.valueOf(there.get().children().size() + added.size()));
            return;
        }
        List<String> later = ORDER.subList(ORDER.indexOf(list) + 1, ORDER.size());
        text.insert(root.children().stream().filter(child -> later.contains(child.local())).mapToInt(XmlText.Element::start).findFirst().orElse(root.closing()),
                "<" + list + " xmlns=\"" + MAIN + "\" count=\"" + added.size() + "\">" + String.join("", added) + "</" + list + ">");
    }

    /** The style sheet. */
    String both() {
        return both;
    }

    /** A sheet of the second as one of both, with its texts in its cells. */
    String ofSheet(String sheet, List<String> texts) {
        String styled = CELL.matcher(sheet).replaceAll(match -> Matcher.quoteReplacement(cell(match, texts)));
        return shifted(RULE, styled, rules::get).replaceFirst("(<sheetView\\s[^>]*?)tabSelected=\"(1|true)\"", "$1tabSelected=\"0\"");
    }

    private String cell(MatchResult match, List<String> texts) {
        String attributes = match.group(2) == null ? "" : shifted(STYLE, match.group(2), cells::get);
        boolean shared = match.group(1).equals("c") && attributes.contains(" t=\"s\"") && match.group(5) != null;
        String after = match.group(4) == null ? "" : match.group(4);
        return shared ? "<c" + attributes.replace(" t=\"s\"", " t=\"inlineStr\"") + "><is>" + texts.get(Integer.parseInt(match.group(5))) + "</is></c>"
                : "<" + match.group(1) + attributes + match.group(3) + ">" + after;
    }

    private static String shifted(Pattern pattern, String text, IntUnaryOperator by) {
        return pattern.matcher(text).replaceAll(match -> Matcher.quoteReplacement(match.group(1) + by.applyAsInt(Integer.parseInt(match.group(2))) + "\""));
    }
}
