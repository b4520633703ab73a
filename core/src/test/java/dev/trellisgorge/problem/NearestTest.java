package dev.trellisgorge.problem;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class NearestTest {
    private static final List<String> KEYS = List.of("title", "category", "value", "classify");

    @DataProvider
    Object[][] slips() {
        return new Object[][] {{"titel", "title"}, {"Title", "title"}, {"catgory", "category"}, {"vlaue", "value"}, {"clasify", "classify"}};
    }

    @Test(dataProvider = "slips")
    public void slipOfTheFingersFindsItsName(String slip, String meant) {
        assertThat(Nearest.to(slip, KEYS)).contains(meant);
    }

    @Test
    public void farNameGetsTheList() {
        assertThat(Nearest.hint("colour", KEYS)).isEqualTo("Known here: 'title', 'category', 'value', 'classify'.");
        assertThat(Nearest.hint("x", List.of())).isEqualTo("Known here: none.");
    }
}
