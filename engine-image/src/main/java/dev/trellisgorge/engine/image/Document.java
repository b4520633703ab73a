package dev.trellisgorge.engine.image;

import de.rototor.pdfbox.graphics2d.PdfBoxGraphics2D;
import dev.trellisgorge.engine.Options;
import dev.trellisgorge.engine.Page;
import dev.trellisgorge.chart.Size;
import java.io.IOException;
import java.io.OutputStream;
import java.time.ZoneOffset;
import java.util.GregorianCalendar;
import java.util.List;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.documentinterchange.logicalstructure.PDMarkInfo;
import org.apache.pdfbox.pdmodel.documentinterchange.logicalstructure.PDStructureElement;
import org.apache.pdfbox.pdmodel.documentinterchange.logicalstructure.PDStructureTreeRoot;
import org.apache.pdfbox.pdmodel.documentinterchange.markedcontent.PDMarkedContent;
import org.apache.pdfbox.pdmodel.documentinterchange.markedcontent.PDPropertyList;
import org.apache.pdfbox.pdmodel.documentinterchange.taggedpdf.StandardStructureTypes;
import org.apache.pdfbox.util.Matrix;

/** Pages as a PDF: drawn as areas and text, the typefaces embedded, each page tagged as a figure with its words. */
final class Document {
    private static final float POINTS_PER_PIXEL = 0.75f;

    private final List<Page> pages;
    private final Options options;
    private final Size size;
    private final Omitted omitted;

    Document(List<Page> pages, Options options, Omitted omitted) {
        this.pages = pages;
        this.options = options;
        this.size = options.size();
        this.omitted = omitted;
    }

    void writeTo(OutputStream out) throws IOException {
        try (PDDocument document = new PDDocument(); EmbeddedText typefaces = new EmbeddedText()) {
            Fonts.each(typefaces::registerFont);
            PDStructureTreeRoot root = new PDStructureTreeRoot();
            document.getDocumentCatalog().setStructureTreeRoot(root);
            PDMarkInfo marked = new PDMarkInfo();
            marked.setMarked(true);
            document.getDocumentCatalog().setMarkInfo(marked);
            document.getDocumentInformation().setTitle(pages.get(0).listed());
            options.author().ifPresent(document.getDocumentInformation()::setAuthor);
            options.date().map(day -> GregorianCalendar.from(day.atStartOfDay(ZoneOffset.UTC))).ifPresent(document.getDocumentInformation()::setCreationDate);
            for (Page page : pages) {
                add(page, document, root, typefaces);
            }
            typefaces.finish();
            document.setDocumentId(1L); // else it comes from the time, and the same charts give other bytes
            document.save(out);
        }
    }

    private void add(Page page, PDDocument document, PDStructureTreeRoot root, EmbeddedText typefaces) throws IOException {
        PDPage sheet = new PDPage(new PDRectangle(size.width() * POINTS_PER_PIXEL, size.height() * POINTS_PER_PIXEL));
        document.addPage(sheet);
        PdfBoxGraphics2D g = new PdfBoxGraphics2D(document, size.width(), size.height());
        g.setFontTextDrawer(typefaces);
        new Sheet(page, size.width(), size.height(), omitted).draw(g);
        g.dispose();

        PDStructureElement figure = new PDStructureElement(StandardStructureTypes.Figure, root);
        figure.setPage(sheet);
        figure.setAlternateDescription(Picture.alternative(page));
        COSDictionary mark = new COSDictionary();
        mark.setInt(COSName.MCID, 0);
        figure.appendKid(new PDMarkedContent(COSName.getPDFName(StandardStructureTypes.Figure), mark));
        root.appendKid(figure);
        try (PDPageContentStream content = new PDPageContentStream(document, sheet)) {
            content.beginMarkedContent(COSName.getPDFName(StandardStructureTypes.Figure), PDPropertyList.create(mark));
            content.transform(Matrix.getScaleInstance(POINTS_PER_PIXEL, POINTS_PER_PIXEL));
            content.drawForm(g.getXFormObject());
            content.endMarkedContent();
        }
    }
}
