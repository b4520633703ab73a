package dev.trellisgorge.engine.workbook;

import java.util.Optional;
import org.apache.poi.ss.usermodel.ShapeTypes;
import org.apache.poi.xddf.usermodel.chart.XDDFChart;
import org.apache.poi.xssf.usermodel.XSSFChart;
import org.apache.poi.xssf.usermodel.XSSFClientAnchor;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFSimpleShape;
import org.openxmlformats.schemas.drawingml.x2006.main.CTTextBody;

/** A sheet whose cells are all equally large, with charts and boxes over them. */
record SheetCanvas(XSSFSheet sheet) implements Canvas {

    @Override
    public XDDFChart chart(Area area, String name, String description) {
        return chart(sheet, area.anchor(), name, description);
    }

    @Override
    public CTTextBody box(Area area, String description, Optional<String> cell) {
        return box(sheet, area.anchor(), "", description, cell);
    }

    static XDDFChart chart(XSSFSheet sheet, XSSFClientAnchor anchor, String name, String description) {
        XSSFChart chart = sheet.createDrawingPatriarch().createChart(anchor);
        var words = chart.getGraphicFrame().getCTGraphicalObjectFrame().getNvGraphicFramePr().getCNvPr();
        words.setName(name);
        words.setDescr(description);
        return chart;
    }

    /** @param name empty for one that is given */
    static CTTextBody box(XSSFSheet sheet, XSSFClientAnchor anchor, String name, String description, Optional<String> cell) {
        XSSFSimpleShape shape = sheet.createDrawingPatriarch().createSimpleShape(anchor);
        shape.setShapeType(ShapeTypes.RECT);
        cell.ifPresent(shape.getCTShape()::setTextlink);
        shape.getCTShape().getNvSpPr().getCNvPr().setDescr(description);
        if (!name.isEmpty()) {
            shape.getCTShape().getNvSpPr().getCNvPr().setName(name);
        }
        return Key.emptied(shape.getCTShape().getSpPr(), shape.getCTShape().getTxBody());
    }
}
