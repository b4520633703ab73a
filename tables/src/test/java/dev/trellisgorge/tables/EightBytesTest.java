package dev.trellisgorge.tables;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import java.util.stream.IntStream;
import org.testng.annotations.Test;

/** Eight bytes in one go, held to a look at each. */
public class EightBytesTest {
    private static final String SIGNS = "0123456789019.,;\t -\"\n\rabcXYZ~\u007f\u0000\u001f !/:";

    /** Bytes of texts mostly, and any others. */
    private static byte[] bytes(Random random) {
        byte[] bytes = new byte[Long.BYTES];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) (random.nextInt(12) == 0 ? random.nextInt(256) : random.nextInt(3) == 0 ? SIGNS.charAt(random.nextInt(SIGNS.length())) : '0' + random.nextInt(10));
        }
        return bytes;
    }

    private static boolean stops(byte sign, byte delimiter) {
        return sign < ' ' || sign == delimiter || sign == '"' || sign == 0x7f; // a byte that is no ASCII is below 0
    }

    @Test
    public void marksAndDigitsAreThoseOfEachByte() {
        Random random = new Random(5);
        for (int round = 0; round < 200_000; round++) {
            byte[] bytes = bytes(random);
            byte delimiter = (byte) ",;\t|".charAt(random.nextInt(4));
            long eight = EightBytes.at(bytes, 0);
            int plain = (int) IntStream.range(0, bytes.length).takeWhile(i -> !stops(bytes[i], delimiter)).count();
            int digits = (int) IntStream.range(0, bytes.length).takeWhile(i -> bytes[i] >= '0' && bytes[i] <= '9').count();
            assertThat(EightBytes.before(EightBytes.stops(eight, EightBytes.of(delimiter)))).as("signs of %s before a stop", new String(bytes, StandardCharsets.ISO_8859_1)).isEqualTo(plain);
            assertThat(EightBytes.digits(EightBytes.figures(eight))).as("digits of %s", new String(bytes, StandardCharsets.ISO_8859_1)).isEqualTo(digits);
            if (digits > 0) {
                assertThat(EightBytes.number(EightBytes.figures(eight), digits)).isEqualTo(Long.parseLong(new String(bytes, 0, digits, StandardCharsets.ISO_8859_1)));
            }
        }
    }
}
