package dev.trellisgorge.campaign;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.parsers.SAXParserFactory;
import org.xml.sax.SAXException;
import org.xml.sax.helpers.DefaultHandler;

/** Whether what was written is what its ending says, by other readers than ours. Thread-safe. */
final class WellFormed {
    private static final SAXParserFactory XML = SAXParserFactory.newDefaultInstance();
    private static final JsonFactory JSON = new JsonFactory();

    static {
        ImageIO.setUseCache(false);
        DocumentBuilderFactory.newDefaultInstance();
    }

    private WellFormed() {
    }

    /** Empty where it is; else what is wrong. */
    static Optional<String> fault(String name, byte[] bytes) {
        try {
            switch (name.substring(name.lastIndexOf('.') + 1)) {
                case "svg" -> xml(new ByteArrayInputStream(bytes));
                case "xlsx", "ods", "pptx" -> parts(bytes);
                case "json" -> json(bytes);
                case "png" -> {
                    if (ImageIO.read(new ByteArrayInputStream(bytes)) == null) {
                        return Optional.of("no picture");
                    }
                }
                case "pdf" -> {
                    String text = new String(bytes, StandardCharsets.ISO_8859_1);
                    return text.startsWith("%PDF-") && text.stripTrailing().endsWith("%%EOF") ? Optional.empty() : Optional.of("no whole PDF");
                }
                default -> {
                    return signs(new String(bytes, StandardCharsets.UTF_8));
                }
            }
            return Optional.empty();
        } catch (IOException | SAXException e) {
            return Optional.of(String.valueOf(e.getMessage()));
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Signs that a terminal would act on. */
    static Optional<String> signs(String text) {
        return text.chars().filter(character -> character < ' ' && character != '\n' && character != '\t' && character != '\r' || character >= 0x7f && character < 0xa0).mapToObj(character -> "the character U+%04X".formatted(character)).findFirst();
    }

    static void json(byte[] bytes) throws IOException {
        try (JsonParser parser = JSON.createParser(bytes)) {
            while (parser.nextToken() != null) {
                parser.getText();
            }
        }
    }

    private static void xml(InputStream in) throws IOException, SAXException, ParserConfigurationException {
        XML.newSAXParser().parse(in, new DefaultHandler());
    }

    private static void parts(byte[] bytes) throws IOException, SAXException, ParserConfigurationException {
        int parts = 0;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(bytes))) {
            for (ZipEntry part = zip.getNextEntry(); part != null; part = zip.getNextEntry()) {
                if (part.getName().endsWith(".xml") || part.getName().endsWith(".rels")) {
                    xml(new ByteArrayInputStream(zip.readAllBytes()));
                    parts++;
                }
            }
        }
        if (parts == 0) {
            throw new IOException("no package of parts");
        }
    }
}
