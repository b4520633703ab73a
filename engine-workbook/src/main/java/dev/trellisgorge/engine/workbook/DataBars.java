package dev.trellisgorge.engine.workbook;

import dev.trellisgorge.chart.Color;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.xmlbeans.XmlCursor;
import org.apache.xmlbeans.XmlException;
import org.apache.xmlbeans.XmlObject;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCfRule;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTCfvo;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTConditionalFormatting;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTDataBar;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTExtension;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTExtensionList;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.CTWorksheet;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.STCfType;
import org.openxmlformats.schemas.spreadsheetml.x2006.main.STCfvoType;

/**
 * Bars in cells, as the format's own data bars: each as long as its cell's figure, on a scale from the least to the largest one that takes in
 * 0. The rule is that of the format's first edition; its extension makes the bars flat, and starts them at 0, to the left below it. Programs
 * that don't know the extension start them at the least figure, which is 0 where none is below it.
 */
final class DataBars {
    private static final String EXTENSION = "http://schemas.microsoft.com/office/spreadsheetml/2009/9/main";
    /** The extension's own space for formulas and places of cells, whose name holds a program's: it is put together. */
    private static final String CELLS = "http://schemas.microsoft.com/office/" + "ex" + "cel/2006/main";
    private static final String OF_RULE = "{B025F937-C7B1-47D3-B67F-A62EFF666E3E}";
    private static final String OF_SHEET = "{78C0D931-6437-407d-A8EE-F0AAD7539E65}";

    private final XSSFSheet sheet;
    private final StringBuilder extended = new StringBuilder();

    DataBars(XSSFSheet sheet) {
        this.sheet = sheet;
    }

    /**
     * What bars go from and to.
     *
     * @param least   a formula of the sheet, for the figure at the start of the cell
     * @param largest the same for its end
     */
    record Scale(String least, String largest) {
        /** From the least to the largest figure of some cells, and 0. */
        static Scale of(CellRangeAddress cells) {
            String all = cells.formatAsString(null, true);
            return new Scale("MIN(0," + all + ")", "MAX(0," + all + ")");
        }
    }

    /**
     * Bars over some cells, whose figures are not written.
     *
     * @param above the colour of those to the right, and {@code below} of those to the left
     */
    void over(CellRangeAddress cells, Scale scale, Color above, Color below) {
        String at = cells.formatAsString();
        String id = "{" + UUID.nameUUIDFromBytes((sheet.getSheetName() + " " + at).getBytes(StandardCharsets.UTF_8)).toString().toUpperCase(Locale.ROOT) + "}";
        CTWorksheet ct = sheet.getCTWorksheet();
        int rules = Arrays.stream(ct.getConditionalFormattingArray()).mapToInt(CTConditionalFormatting::sizeOfCfRuleArray).sum();
        CTConditionalFormatting formatting = ct.addNewConditionalFormatting();
        formatting.setSqref(List.of(at));
        CTCfRule rule = formatting.addNewCfRule();
        rule.setType(STCfType.DATA_BAR);
        rule.setPriority(rules + 1);
        CTDataBar bar = rule.addNewDataBar();
        bar.setMinLength(0);
        bar.setMaxLength(100);
        bar.setShowValue(false);
        end(bar.addNewCfvo(), scale.least());
        end(bar.addNewCfvo(), scale.largest());
        bar.addNewColor().setRgb(new byte[] {-1, (byte) above.red(), (byte) above.green(), (byte) above.blue()});
        extend(rule.addNewExtLst(), OF_RULE, "<x14:id xmlns:x14=\"" + EXTENSION + "\">" + id + "</x14:id>");
        extended.append("<x14:conditionalFormatting><x14:cfRule type=\"dataBar\" id=\"").append(id).append("\"><x14:dataBar minLength=\"0\" maxLength=\"100\" showValue=\"0\" gradient=\"0\" axisPosition=\"automatic\">")
                .append("<x14:cfvo type=\"formula\"><xm:f>").append(scale.least()).append("</xm:f></x14:cfvo><x14:cfvo type=\"formula\"><xm:f>").append(scale.largest()).append("</xm:f></x14:cfvo><x14:negativeFillColor rgb=\"FF")
                .append(below.toString().substring(1).toUpperCase(Locale.ROOT)).append("\"/><x14:axisColor rgb=\"FF000000\"/></x14:dataBar></x14:cfRule><xm:sqref>").append(at).append("</xm:sqref></x14:conditionalFormatting>");
    }

    private static void end(CTCfvo end, String formula) {
        end.setType(STCfvoType.FORMULA);
        end.setVal(formula);
    }

    /** Writes the extension of all of them, once for a sheet. */
    void finish() {
        if (!extended.isEmpty()) {
            extend(sheet.getCTWorksheet().addNewExtLst(), OF_SHEET, "<x14:conditionalFormattings xmlns:x14=\"" + EXTENSION + "\" xmlns:xm=\"" + CELLS + "\">" + extended + "</x14:conditionalFormattings>");
        }
    }

    private static void extend(CTExtensionList list, String kind, String content) {
        CTExtension extension = list.addNewExt();
        extension.setUri(kind);
        try (XmlCursor from = XmlObject.Factory.parse(content).newCursor(); XmlCursor to = extension.newCursor()) {
            from.toFirstChild();
            to.toEndToken();
            from.copyXml(to);
        } catch (XmlException e) {
            throw new IllegalStateException(e);
        }
    }
}
