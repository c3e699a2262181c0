package fixshelf.type;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// One of anything is never called several.
class AmountsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "0 | 0 rows | the first 0 rows | all 0 rows",
                "1 | 1 row | the first row | the only row",
                "2 | 2 rows | the first 2 rows | all 2 rows",
                "12408 | 12,408 rows | the first 12,408 rows | all 12,408 rows"
            })
    void areWrittenAsPeopleDo(long count, String some, String first, String all) {
        assertThat(Amounts.of(count, "row")).isEqualTo(some);
        assertThat(Amounts.first(count, "row")).isEqualTo(first);
        assertThat(Amounts.all(count, "row")).isEqualTo(all);
    }
}
