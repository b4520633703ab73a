package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.Sheet;

/** How sheets are printed: all on landscape paper. */
enum Printed {
    ON_ONE_PAGE("Chart"), ONE_PAGE_WIDE("Wide"), AS_IT_COMES("Cells");

    private final String master;

    Printed(String master) {
        this.master = master;
    }

    /** How a sheet is printed. */
    static Printed of(Sheet.Printing printing) {
        return switch (printing) {
            case ONE_PAGE -> ON_ONE_PAGE;
            case ONE_PAGE_WIDE -> ONE_PAGE_WIDE;
            case AS_IT_COMES -> AS_IT_COMES;
        };
    }

    /** The name of its kind of page. */
    String master() {
        return master;
    }

    /** Writes the layouts of all kinds of pages, where automatic styles stand. */
    static void layouts(PartWriter part) {
        for (Printed each : values()) {
            part.open("style:page-layout", "style:name", "page" + each.master);
            part.leaf("style:page-layout-properties", "fo:page-width", "29.7cm", "fo:page-height", "21cm", "style:print-orientation", "landscape", "fo:margin", "1.27cm",
                    "style:scale-to-X", each == AS_IT_COMES ? null : "1", "style:scale-to-Y", each == ON_ONE_PAGE ? "1" : null, "style:table-centering", each == ON_ONE_PAGE ? "horizontal" : null);
            part.close(1);
        }
    }

    /** Writes the kinds of pages. */
    static void masters(PartWriter part) {
        part.open("office:master-styles");
        for (Printed each : values()) {
            part.leaf("style:master-page", "style:name", each.master, "style:page-layout-name", "page" + each.master);
        }
        part.close(1);
    }
}
