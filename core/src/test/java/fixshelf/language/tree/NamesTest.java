package fixshelf.language.tree;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// C12: a name that is not known gets the nearest ones.
class NamesTest {
    private static final List<String> KNOWN =
            List.of("trim", "rtrim", "ltrim", "to_date", "to_decimal", "squeeze_spaces", "replace", "repeat");

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "trimm ; trim",
                "TRIM ; trim,ltrim,rtrim",
                "tirm ; trim",
                "to_dat ; to_date",
                "spaces ; squeeze_spaces",
                "repalce ; replace",
                "x ; ''",
                "median ; ''"
            })
    void theNearestComeFirst(String name, String nearest) {
        assertThat(String.join(",", Names.nearest(name, KNOWN))).isEqualTo(nearest);
    }

    @ParameterizedTest
    @CsvSource({"ab, ba, 1", "kettle, ketle, 1", "a, '', 1", "'', '', 0", "lamp, lamps, 1", "abc, cab, 2"})
    void neighboursThatAreExchangedCountAsOne(String a, String b, int distance) {
        assertThat(Names.distance(a, b)).isEqualTo(distance).isEqualTo(Names.distance(b, a));
    }
}
