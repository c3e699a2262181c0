package fixshelf.language.checking;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// Constants in cases and defaults are the same whether they are read the short way or with the parser.
class ConstantsTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "'brass'",
                "''",
                "'it''s'",
                "' '",
                "'a|b'",
                "12",
                "-12",
                "0",
                "-0",
                "007",
                "999999999999999999",
                "1.50",
                "-0.00",
                "0.001",
                "123456789012345678.123456789012345678",
                "1.",
                ".5",
                "DATE '2026-02-07'",
                "date  '0001-01-01'",
                "DATE '2024-02-29'",
                "NULL",
                "null",
                "TRUE",
                "false",
                " 12 ",
                "1.5e0",
                "U&'\\00A0'",
                "TIMESTAMP '2026-02-07 10:12:00'",
                "'a' || 'b'",
                "timestamp  '0001-01-01 00:00:00'",
                "TIMESTAMP '9999-12-31 23:59:59'",
                "ARRAY['a', 'it''s, here', ']']",
                "ARRAY[]",
                "array[1,2 , 3]",
                "ARRAY[1, 2.50]",
                "ARRAY[NULL, 'a']",
                "ARRAY[-1, 0]",
                "ARRAY[DATE '2024-02-29', DATE '2024-03-01']",
                "MAP['a', 'x', 'b,', '']",
                "map ['a', NULL]",
                "MAP[1, 2, 3, 4.5]",
                "ARRAY['a' || 'b', 'c']",
                "MAP['a', U&'\\00A0']"
            })
    void areReadInOneWay(String text) {
        Optional<Expr.Literal> known = WrittenConstants.read("test", text).get();
        assertThat(known)
                .isPresent()
                .isEqualTo(WrittenConstants.parsed("test", text).value().orElseThrow());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "TIMESTAMP '2026-02-03 24:00:00'",
                "ARRAY[1, 'a']",
                "ARRAY['a',]",
                "MAP['a', 'x', 'a', 'y']",
                "MAP['a']",
                "MAP[NULL, 'x']",
                "ARRAY['a' 'b']",
                "DATE '2026-02-30'",
                "DATE '0000-01-01'",
                "DATE '26-2-7'",
                "12 kg",
                "'open",
                "--1",
                "9999999999999999999"
            })
    void areRefusedInWords(String text) {
        Outcome<Optional<Expr.Literal>> outcome = WrittenConstants.read("test", text);
        assertThat(outcome.isPresent() && outcome.get().isPresent()).isFalse();
        assertThat(outcome.problems()).allSatisfy(p -> assertThat(p.todo()).isNotEmpty());
    }
}
