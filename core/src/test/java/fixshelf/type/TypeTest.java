package fixshelf.type;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Types are written and read, and one stands for another only where nothing can be lost.
class TypeTest {
    private static final List<Type> TYPES = types();

    private static List<Type> types() {
        List<Type> types = new ArrayList<>(List.of(Type.TEXT, Type.INTEGER, Type.BOOLEAN, Type.DATE, Type.TIMESTAMP));
        for (int precision : List.of(1, 5, 18, 19, 22, 38)) {
            for (int scale : List.of(0, 1, 3, 18)) {
                if (scale <= precision) {
                    types.add(new Type.Decimal(precision, scale));
                }
            }
        }
        for (Type element : List.copyOf(types).subList(0, 8)) {
            types.add(new Type.ListOf(element));
            types.add(new Type.Mapping(element, Type.TEXT));
        }
        return types;
    }

    @Test
    void whatIsWrittenIsRead() {
        TYPES.forEach(t -> assertThat(Type.parse(t.label())).contains(t));
    }

    @Test
    void fittingLosesNothingOnAnyWay() {
        for (Type a : TYPES) {
            assertThat(a.fits(a)).isTrue();
            assertThat(Type.UNKNOWN.fits(a)).as("null is of every type").isTrue();
            for (Type b : TYPES) {
                if (a.fits(b) && b.fits(a)) {
                    assertThat(a).isEqualTo(b);
                }
                Optional<Type> common = Type.common(a, b);
                assertThat(common).isEqualTo(Type.common(b, a));
                common.ifPresent(c -> assertThat(a.fits(c) && b.fits(c))
                        .as(a + ", " + b + ", " + c)
                        .isTrue());
                for (Type c : TYPES) {
                    if (a.fits(b) && b.fits(c)) {
                        assertThat(a.fits(c)).as(a + ", " + b + ", " + c).isTrue();
                    }
                }
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "integer ; decimal(19,0) ; true",
                "integer ; decimal(18,0) ; false",
                "integer ; decimal(21,2) ; true",
                "decimal(10,2) ; decimal(12,4) ; true",
                "decimal(10,2) ; decimal(12,5) ; false",
                "decimal(10,2) ; decimal(10,1) ; false",
                "decimal(3,0) ; integer ; false",
                "integer ; number ; false",
                "decimal(3,1) ; number ; false",
                "number ; decimal(38,10) ; false",
                "date ; timestamp ; false",
                "text ; integer ; false",
                "list of integer ; list of decimal(19,0) ; true"
            })
    void onlyWhatHasRoomFits(String from, String to, boolean fits) {
        assertThat(Type.parse(from).orElseThrow().fits(Type.parse(to).orElseThrow()))
                .isEqualTo(fits);
    }

    @ParameterizedTest
    @CsvSource({"decimal(39)", "'decimal(4,5)'", "float", "list of list of text", "mapping of text", "''", "texts"})
    void whatIsNoTypeIsNone(String text) {
        assertThat(Type.parse(text)).isEmpty();
    }
}
