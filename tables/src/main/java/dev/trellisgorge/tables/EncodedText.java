package dev.trellisgorge.tables;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.LineNumberReader;
import java.io.Reader;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** Bytes as text, none of them passed over. */
final class EncodedText {
    private static final char REPLACEMENT = '\uFFFD';

    private EncodedText() {
    }

    /** The charset that a byte-order mark says; UTF-8 where there is none. */
    static Charset marked(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] start = in.readNBytes(2);
            boolean big = start.length == 2 && (start[0] & 0xFF) == 0xFE && (start[1] & 0xFF) == 0xFF;
            boolean little = start.length == 2 && (start[0] & 0xFF) == 0xFF && (start[1] & 0xFF) == 0xFE;
            return big ? StandardCharsets.UTF_16BE : little ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_8;
        }
    }

    /** Bytes that are none in the charset are an error. */
    static Reader reader(InputStream in, Charset charset) {
        return new InputStreamReader(in, charset.newDecoder().onMalformedInput(CodingErrorAction.REPORT).onUnmappableCharacter(CodingErrorAction.REPORT));
    }

    /** Whether all bytes of a file are text in a charset. */
    static boolean isAll(Path file, Charset charset) throws IOException {
        char[] buffer = new char[1 << 14];
        try (Reader reader = reader(Files.newInputStream(file), charset)) {
            while (reader.read(buffer) >= 0) { // malformed bytes are thrown
                continue;
            }
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    /** The line, from 1, with the first bytes that are none in the charset; the number of lines and one where all are. */
    static int oddLine(Path file, Charset charset) throws IOException {
        try (LineNumberReader lines = new LineNumberReader(new InputStreamReader(Files.newInputStream(file), charset))) {
            String line = lines.readLine();
            while (line != null && line.indexOf(REPLACEMENT) < 0) {
                line = lines.readLine();
            }
            return line == null ? lines.getLineNumber() + 1 : lines.getLineNumber();
        }
    }
}
