package dev.trellisgorge.engine.image;

import static org.assertj.core.api.Assertions.assertThat;

import dev.trellisgorge.engine.Engines;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.formula.Settings;
import dev.trellisgorge.pattern.Chart;
import dev.trellisgorge.pattern.Columns;
import dev.trellisgorge.pattern.TextBar;
import dev.trellisgorge.plan.PlainChart;
import dev.trellisgorge.table.Column;
import dev.trellisgorge.table.Table;
import java.awt.Font;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType3Font;
import org.apache.pdfbox.pdmodel.graphics.form.PDFormXObject;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Characters that the typeface of pictures lacks are drawn with another font, or told. */
public class ScriptsTest {

    private static PlainChart named(String name) {
        return Chart.of("n", Columns.of("v")).over(Table.of("t", Column.texts("n", name), Column.numbers("v", 3)), Settings.NONE);
    }

    private static List<String> leftOut(PlainChart chart, String ending) {
        List<String> told = new ArrayList<>();
        try {
            Engines.draw(List.of(Page.of(chart)), new ImageEngine(), ending, Options.STANDARD, OutputStream.nullOutputStream(), told::add);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return told;
    }

    @DataProvider
    Object[][] scripts() {
        return new Object[][] {{"\u5317\u95F8", "fonts-noto-cjk"}, {"\u0633\u062F", "fonts-noto-core"}, {"\u0939\u0947\u0930\u0949\u0928", "fonts-noto-core"}, {"\uE123", "fonts-noto-core"}};
    }

    @Test(dataProvider = "scripts")
    public void scriptIsDrawnWithAFontOfTheMachineOrTold(String name, String debian) {
        Font machine = new Font(Font.SANS_SERIF, Font.PLAIN, 12);
        boolean able = machine.canDisplayUpTo(name) < 0;
        assertThat(Scripts.able(Fonts.regular(20), name).canDisplayUpTo(name) < 0).isEqualTo(able);
        assertThat(Scripts.able(Fonts.regular(20), name).getSize()).isEqualTo(20);
        if (able) {
            assertThat(leftOut(named(name), "png")).isEmpty();
        } else {
            assertThat(leftOut(named(name), "png")).hasSize(1).allMatch(sentence -> sentence.startsWith("'chart': no font here has '") && sentence.contains("on Debian " + debian));
        }
        assertThat(leftOut(named(name), "svg")).isEmpty();
    }

    @Test
    public void wordsOfOurTypefaceStayInIt() {
        assertThat(Scripts.able(Fonts.regular(20), "Ström, Škola – 20 €")).isEqualTo(Fonts.regular(20));
        assertThat(leftOut(named("Ström"), "pdf")).isEmpty();
    }

    @Test
    public void signOfABarThatIsLackingIsToldAndKeptInAnSvg() {
        PlainChart fish = Chart.of("n", TextBar.of("v").glyph("\uD83D\uDC1F").per(dev.trellisgorge.formula.Formulas.number(1))).over(Table.of("t", Column.texts("n", "Weir"), Column.numbers("v", 3)), Settings.NONE);
        assertThat(leftOut(fish, "png")).containsExactly("'chart': ● stands for '\uD83D\uDC1F', which the typeface of bars made of characters lacks; an .svg keeps it");
        assertThat(leftOut(fish, "svg")).isEmpty();
        assertThat(Svg.of(Page.of(fish)).texts()).contains("\uD83D\uDC1F\uD83D\uDC1F\uD83D\uDC1F");
    }

    @Test
    public void glyphsOfOtherFontsAreInAPdfAndSayWhatTheyStandFor() throws IOException {
        List<String> names = List.of("\u5317 \u95F8", "\u0633\u062F \u0627\u0644\u0646\u0647\u0631", "\u0939\u0947\u0930\u0949\u0928 \u0928\u0926\u0940", "\u0928\u0926\u093F 12 m");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(names.stream().map(ScriptsTest::named).map(Page::of).toList(), "pdf", Options.STANDARD, out);
        try (PDDocument document = Loader.loadPDF(out.toByteArray())) {
            for (int page = 0; page < names.size(); page++) {
                PDResources resources = document.getPage(page).getResources();
                PDFormXObject form = (PDFormXObject) resources.getXObject(resources.getXObjectNames().iterator().next());
                List<PDFont> fonts = new ArrayList<>();
                for (COSName font : form.getResources().getFontNames()) {
                    fonts.add(form.getResources().getFont(font));
                }
                assertThat(fonts).as(names.get(page)).allMatch(PDFont::isEmbedded).anyMatch(PDType3Font.class::isInstance);
                PDFTextStripper words = new PDFTextStripper();
                words.setStartPage(page + 1);
                words.setEndPage(page + 1);
                assertThat(words.getText(document).replace("\u202B", "").replace("\u202C", "")).as(names.get(page)).contains(page == 3 ? "12 m" : names.get(page));
                assertMarked(form, page == 3 && new Font(Font.SANS_SERIF, Font.PLAIN, 12).canDisplayUpTo(names.get(page)) < 0);
            }
        }
    }

    /** Vowel signs that are drawn before their consonant: the glyphs don't stand in the order of reading. */
    private static void assertMarked(PDFormXObject form, boolean outOfOrder) throws IOException {
        try (InputStream in = form.getContents()) {
            String content = new String(in.readAllBytes(), StandardCharsets.ISO_8859_1);
            assertThat(content.split("BDC").length).as("each that is begun ends").isEqualTo(content.split("EMC").length);
            assertThat(content.contains("/ActualText")).isEqualTo(outOfOrder);
        }
    }

    @Test
    public void moreGlyphsThanAFontTakesGoIntoTheNext() throws IOException {
        String many = IntStream.range(0, 40).mapToObj(at -> Character.toString(0x4E00 + at)).collect(Collectors.joining());
        List<PlainChart> charts = IntStream.range(0, 16).mapToObj(at -> named(many.codePoints().map(character -> character + 40 * at).collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append).toString())).toList();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Engines.draw(charts.stream().map(Page::of).toList(), "pdf", Options.STANDARD, out);
        try (PDDocument document = Loader.loadPDF(out.toByteArray())) {
            String words = new PDFTextStripper().getText(document);
            assertThat(words).contains(many).contains(charts.get(15).categoryText(0));
        }
    }
}
