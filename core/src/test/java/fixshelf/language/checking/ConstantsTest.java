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
                "'a' || 'b'"
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
