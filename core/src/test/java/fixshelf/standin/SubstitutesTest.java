package fixshelf.standin;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.profile.Layout;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Values that are made up: what of a value stays, and what must not.
class SubstitutesTest {
    private static Substitutes settled(long secret, Set<String> kept, List<String> values) {
        byte[] bytes = new byte[32];
        new Random(secret).nextBytes(bytes);
        Substitutes substitutes = new Substitutes(bytes, kept, _ -> true);
        values.forEach(substitutes::learn);
        substitutes.settle();
        return substitutes;
    }

    private static String of(String value, String... others) {
        List<String> all = new ArrayList<>(List.of(others));
        all.add(value);
        return settled(7, Set.of(), all).of(value);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Maud Thistlewood",
                "  brass   hinge ",
                "Renée",
                "Rene\u0301e",
                "a\u00A0b",
                "AQ-00417",
                "AQ 417",
                "12 items",
                "£12.50",
                "12,345.00",
                "-3.10",
                "0.25",
                "1e5",
                "07613 244980",
                "2026-02-07",
                "31/02/2026",
                "7 Mar 2026",
                "2026-02-07T10:12:00",
                "07.02.26",
                "23:59:00",
                "a,,b,",
                "maud@mending.example",
                "ÄÖ ß 北京 Привет",
                "😀 lamp"
            })
    void theLayoutStaysAndTheValueDoesNot(String value) {
        String made = of(value);
        assertThat(made).isNotEqualTo(value);
        assertThat(made.codePointCount(0, made.length())).isEqualTo(value.codePointCount(0, value.length()));
        assertThat(Layout.of(made, Layout.cache())).isEqualTo(Layout.of(value, Layout.cache()));
        int[] were = value.codePoints().toArray();
        int[] are = made.codePoints().toArray();
        for (int i = 0; i < were.length; i++) {
            assertThat(Character.isUpperCase(are[i])).isEqualTo(Character.isUpperCase(were[i]));
            assertThat(Character.isLetter(are[i])).isEqualTo(Character.isLetter(were[i]));
            if (!Character.isLetterOrDigit(were[i])) {
                assertThat(are[i]).isEqualTo(were[i]);
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "\u00A0", "-", "–", "0", "000", "0.00", "????", "0000-00-00", "\n"})
    void whatSaysNothingStays(String value) {
        assertThat(of(value)).isEqualTo(value);
    }

    @ParameterizedTest
    @CsvSource({
        "2024-02-29, 2020-02-29",
        "2023-02-29, 2019-02-29",
        "31/02/2026, 31/02/2022",
        "03/04/2026, 03/04/2022",
        "3 Apr 26, 3 Apr 22",
        "01.01.02, 01.01.06",
        "2026-02-07 10:12:00, 2022-02-07 10:12:00"
    })
    void aDayIsInAnotherYearAndAsPossibleAsItWas(String day, String made) {
        assertThat(of(day)).isEqualTo(made);
    }

    @Test
    void spellingsOfOneValueAreSpellingsOfOneValue() {
        List<String> spellings = List.of("Renée Ostler", "renee ostler", "  RENÉE  OSTLER ", "Rene\u0301e Ostler");
        Substitutes substitutes = settled(3, Set.of(), spellings);
        assertThat(spellings.stream().map(substitutes::of).map(Runs::of).distinct())
                .hasSize(1);
        List<String> codes = List.of("AQ-00417", "aq 417", "AQ0417");
        Substitutes numbered = settled(3, Set.of(), codes);
        assertThat(codes.stream().map(numbered::of).map(Runs::of).distinct()).hasSize(1);
        List<String> numbers = List.of("1,234.50", "1234.5", "-1234.5000");
        Substitutes exact = settled(3, Set.of(), numbers);
        assertThat(numbers.stream().map(exact::of).map(Runs::ofNumber).distinct())
                .hasSize(1);
    }

    @Test
    void whatIsKeptStaysAsAWordAndAsAValue() {
        List<String> values = List.of("kg", "12 kg", "part ordered", "Part  Ordered", "ordered", "AQ-17");
        Substitutes substitutes = settled(5, Set.of("kg", "part ordered", "AQ"), values);
        assertThat(substitutes.of("kg")).isEqualTo("kg");
        assertThat(substitutes.of("12 kg")).endsWith(" kg").isNotEqualTo("12 kg");
        assertThat(substitutes.of("part ordered")).isEqualTo("part ordered");
        assertThat(substitutes.of("Part  Ordered")).isEqualTo("Part  Ordered");
        assertThat(substitutes.of("ordered")).isNotEqualTo("ordered");
        assertThat(substitutes.of("AQ-17")).startsWith("AQ-").isNotEqualTo("AQ-17");
    }

    /// For made-up tables of many secrets: the same for the same, another one for another, and none that was there
    /// unless it says so.
    @Test
    void valuesAreToldApartAsBefore() {
        Random random = new Random(20261127);
        for (int round = 0; round < 60; round++) {
            List<String> values = IntStream.range(0, 400)
                    .mapToObj(_ -> value(random))
                    .distinct()
                    .toList();
            Substitutes substitutes = settled(round, Set.of(), values);
            Map<String, String> made = new HashMap<>();
            Set<String> there = new HashSet<>(values);
            int met = 0;
            for (String value : values) {
                String other = substitutes.of(value);
                assertThat(substitutes.of(value)).isEqualTo(other);
                assertThat(made.put(other, value))
                        .as("%s, which %s became", other, value)
                        .isNull();
                met += there.contains(other) ? 1 : 0;
            }
            assertThat((long) met).isLessThanOrEqualTo(substitutes.movedPlaces() + substitutes.stay());
        }
    }

    /// Numbers without a gap take each other's place; a code with zeros in front has room for others.
    @Test
    void whereNothingIsFreeValuesChangePlaces() {
        List<String> dense = IntStream.range(1000, 2000)
                .mapToObj(i -> String.valueOf(i * 10 + i % 9 + 1))
                .toList();
        List<String> all = IntStream.range(1, 1000).mapToObj(String::valueOf).toList();
        Substitutes substitutes = settled(1, Set.of(), all);
        List<String> made = all.stream().map(substitutes::of).toList();
        assertThat(new LinkedHashSet<>(made)).hasSize(all.size());
        assertThat(substitutes.movedPlaces()).isPositive();
        assertThat(IntStream.range(0, all.size())
                        .filter(i -> made.get(i).equals(all.get(i)))
                        .count())
                .isLessThanOrEqualTo(substitutes.stay());
        List<String> codes = IntStream.range(1, 3000)
                .mapToObj(i -> String.format("AQ-%05d", i))
                .toList();
        Substitutes free = settled(2, Set.of("AQ"), codes);
        assertThat(codes.stream().map(free::of)).doesNotContainAnyElementsOf(codes);
        assertThat(dense.stream().map(settled(4, Set.of(), dense)::of)).hasSize(dense.size());
    }

    private static String value(Random random) {
        return switch (random.nextInt(5)) {
            case 0 -> word(random) + " " + word(random);
            case 1 -> word(random);
            case 2 -> String.valueOf(random.nextInt(100_000) / 100.0);
            case 3 -> word(random).toUpperCase() + "-" + random.nextInt(10_000);
            default -> String.format(Arrays.asList("%d", "%06d", "%,d").get(random.nextInt(3)), random.nextInt(99_999));
        };
    }

    private static String word(Random random) {
        StringBuilder out = new StringBuilder();
        int length = 2 + random.nextInt(7);
        for (int i = 0; i < length; i++) {
            out.append("abcdeéilmnorstuü".charAt(random.nextInt(16)));
        }
        return out.toString();
    }
}
