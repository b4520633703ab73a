package dev.trellisgorge.chart;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * The palette by role: contrast (WCAG 2) and difference under three colour-vision deficiencies (the matrices of Machado,
 * Oliveira and Fernandes 2009 at full severity, on linear sRGB; difference as CIE 1976).
 */
public class PaletteTest {
    private static final Set<Role> FILLS = EnumSet.complementOf(EnumSet.of(Role.INK, Role.PAPER));
    private static final double LEAST_DIFFERENCE = 10;
    private static final double[][][] DEFICIENCIES = {
        {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}},
        {{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}},
        {{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}},
        {{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}};

    @Test
    public void fillsStandOutFromPaperAndInkReads() {
        FILLS.forEach(role -> assertThat(role.color().contrast(Role.PAPER.color())).as(role.name()).isGreaterThanOrEqualTo(3));
        assertThat(Role.INK.color().contrast(Role.PAPER.color())).isGreaterThanOrEqualTo(4.5);
    }

    @DataProvider
    Object[][] pairs() {
        List<Object[]> pairs = new ArrayList<>();
        List<Role> fills = List.copyOf(FILLS);
        for (int i = 0; i < fills.size(); i++) {
            for (int j = i + 1; j < fills.size(); j++) {
                pairs.add(new Object[] {fills.get(i), fills.get(j)});
            }
        }
        return pairs.toArray(Object[][]::new);
    }

    @Test(dataProvider = "pairs")
    public void fillsDifferForEveryReader(Role a, Role b) {
        for (double[][] deficiency : DEFICIENCIES) {
            assertThat(difference(a.color(), b.color(), deficiency)).as(a + " and " + b).isGreaterThanOrEqualTo(LEAST_DIFFERENCE);
        }
    }

    @Test
    public void bandsStandOutFromPaperAndDarkenStepByStep() {
        for (int of = 1; of <= 5; of++) {
            for (int band = 0; band < of; band++) {
                assertThat(Role.band(band, of).contrast(Role.PAPER.color())).isGreaterThanOrEqualTo(3);
                for (double[][] deficiency : DEFICIENCIES) {
                    assertThat(difference(Role.ACCENT.color(), Role.band(band, of), deficiency)).as("a mark on band %s of %s", band, of)
                            .isGreaterThanOrEqualTo(LEAST_DIFFERENCE);
                    if (band > 0) {
                        assertThat(difference(Role.band(band - 1, of), Role.band(band, of), deficiency)).isGreaterThanOrEqualTo(6);
                    }
                }
            }
        }
    }

    private static double difference(Color a, Color b, double[][] deficiency) {
        double[] p = lab(a, deficiency);
        double[] q = lab(b, deficiency);
        return Math.sqrt(Math.pow(p[0] - q[0], 2) + Math.pow(p[1] - q[1], 2) + Math.pow(p[2] - q[2], 2));
    }

    private static double[] lab(Color color, double[][] deficiency) {
        double[] rgb = times(deficiency, new double[] {linear(color.red()), linear(color.green()), linear(color.blue())});
        double[] xyz = times(new double[][] {{0.4124564, 0.3575761, 0.1804375}, {0.2126729, 0.7151522, 0.0721750},
            {0.0193339, 0.1191920, 0.9503041}}, rgb);
        double x = root(xyz[0] / 0.95047);
        double y = root(xyz[1]);
        double z = root(xyz[2] / 1.08883);
        return new double[] {116 * y - 16, 500 * (x - y), 200 * (y - z)};
    }

    private static double[] times(double[][] matrix, double[] vector) {
        double[] product = new double[3];
        for (int i = 0; i < 3; i++) {
            for (int j = 0; j < 3; j++) {
                product[i] += matrix[i][j] * vector[j];
            }
        }
        return product;
    }

    private static double linear(int channel) {
        double c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }

    private static double root(double t) {
        return t > 216.0 / 24389 ? Math.cbrt(t) : (24389.0 / 27 * t + 16) / 116;
    }
}
