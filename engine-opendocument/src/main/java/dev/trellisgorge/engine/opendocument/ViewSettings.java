package dev.trellisgorge.engine.opendocument;

import dev.trellisgorge.sheet.Sheet;
import java.io.OutputStream;
import java.util.List;

/** How sheets are seen when they are opened: the rows and columns that stay in sight, and whether lines between the cells are seen. */
final class ViewSettings {
    private static final String FROZEN = "2";

    private ViewSettings() {
    }

    static void write(OutputStream out, List<Sheet> sheets) {
        try (PartWriter part = new PartWriter(out, "office:document-settings", "config", "ooo")) {
            part.open("office:settings").open("config:config-item-set", "config:name", "ooo:view-settings").open("config:config-item-map-indexed", "config:name", "Views").open("config:config-item-map-entry");
            item(part, "ViewId", "string", "view1");
            part.open("config:config-item-map-named", "config:name", "Tables");
            sheets.forEach(sheet -> sheet(part, sheet));
            part.close(1);
            item(part, "ActiveTable", "string", sheets.get(0).name());
        }
    }

    private static void sheet(PartWriter part, Sheet sheet) {
        part.open("config:config-item-map-entry", "config:name", sheet.name());
        if (sheet.columnsInSight() > 0) {
            item(part, "HorizontalSplitMode", "short", FROZEN);
            item(part, "HorizontalSplitPosition", "int", String.valueOf(sheet.columnsInSight()));
            item(part, "PositionRight", "int", String.valueOf(sheet.columnsInSight()));
        }
        if (sheet.rowsInSight() > 0) {
            item(part, "VerticalSplitMode", "short", FROZEN);
            item(part, "VerticalSplitPosition", "int", String.valueOf(sheet.rowsInSight()));
            item(part, "PositionBottom", "int", String.valueOf(sheet.rowsInSight()));
        }
        if (sheet.columnsInSight() + sheet.rowsInSight() > 0) {
            item(part, "ActiveSplitRange", "short", sheet.columnsInSight() > 0 && sheet.rowsInSight() > 0 ? "3" : "2");
        }
        item(part, "ShowGrid", "boolean", String.valueOf(sheet.hasGridlines()));
        part.close(1);
    }

    private static void item(PartWriter part, String name, String type, String value) {
        part.open("config:config-item", "config:name", name, "config:type", type).words(value).close(1);
    }
}
