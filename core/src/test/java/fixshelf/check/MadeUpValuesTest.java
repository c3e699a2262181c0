package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Expr;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Made-up values are the same every time, hold the edges, can be written down and read again, and get smaller until
/// they cannot.
class MadeUpValuesTest {
    private static final int COUNT = 300;

    static Stream<Type> types() {
        return Stream.of(
                Type.TEXT,
                Type.INTEGER,
                new Type.Decimal(18, 4),
                new Type.Decimal(3, 0),
                Type.BOOLEAN,
                Type.DATE,
                Type.TIMESTAMP,
                new Type.ListOf(Type.TEXT),
                new Type.Mapping(Type.TEXT, Type.INTEGER));
    }

    @ParameterizedTest
    @MethodSource("types")
    void areWrittenAndReadAgain(Type type) {
        List<Expr.Literal> values = new MadeUpValues(7, List.of("kettle")).of(type, COUNT);
        assertThat(values).isEqualTo(new MadeUpValues(7, List.of("kettle")).of(type, COUNT));
        assertThat(values).anyMatch(v -> v.value() == null);
        for (Expr.Literal value : values) {
            String written = Literals.print(value.value());
            Expr.Literal read = WrittenConstants.read("value", written).get().orElseThrow();
            assertThat(Literals.print(read.value())).isEqualTo(written);
            boolean fits = Constants.fits(read, type);
            assertThat(fits)
                    .as(written + " is " + read.type().label() + ", not " + type.label())
                    .isTrue();
        }
    }

    @ParameterizedTest
    @MethodSource("types")
    void getSmallerUntilTheyCannot(Type type) {
        for (Expr.Literal value : new MadeUpValues(11, List.of("kettle")).of(type, 40)) {
            Set<Expr.Literal> seen = new HashSet<>(List.of(value));
            Deque<Expr.Literal> open = new ArrayDeque<>(seen);
            int steps = 0;
            while (!open.isEmpty() && steps++ < 200) {
                for (Expr.Literal smaller : MadeUpValues.smaller(open.poll())) {
                    assertThat(smaller.type()).isEqualTo(value.type());
                    if (seen.add(smaller)) {
                        open.push(smaller);
                    }
                }
            }
            // The last one of a chain that always takes the first candidate has none.
            Expr.Literal last = value;
            List<Expr.Literal> chain = new ArrayList<>();
            while (!MadeUpValues.smaller(last).isEmpty()) {
                last = MadeUpValues.smaller(last).getFirst();
                chain.add(last);
            }
            assertThat(new HashSet<>(chain)).as("no value comes twice").hasSameSizeAs(chain);
        }
    }

    @Test
    void theEdgesOfTextAreThere() {
        assertThat(new MadeUpValues(1, List.of("kettle"))
                        .of(Type.TEXT, COUNT).stream().map(v -> Literals.print(v.value())))
                .contains("NULL", "''", "' '", "'00120'", "U&'\\00A0'", "U&'\\0009'")
                .anyMatch(v -> v.length() > 100);
        assertThat(new MadeUpValues(1, List.of("kettle"))
                        .of(Type.INTEGER, COUNT).stream().map(v -> Literals.print(v.value())))
                .contains("0", "-1", "9223372036854775807", "-9223372036854775808");
    }
}
