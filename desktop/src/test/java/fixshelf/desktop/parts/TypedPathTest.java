package fixshelf.desktop.parts;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What a typed path could become: folders first, whatever the capitals, nothing hidden that was not asked for.
class TypedPathTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "data/        | data/More/ data/a b.csv data/Visits.csv",
                "data/v       | data/Visits.csv",
                "data/more    | data/More/",
                "data/.       | data/.hidden",
                "data/x       | ''",
                "nowhere/     | ''",
                "./da         | ./data/",
                "data\u0000/  | ''",
            })
    void areFoundAsTheyBegin(String typed, String found) throws Exception {
        Files.createDirectories(root.resolve("data/More"));
        for (String name : new String[] {"Visits.csv", "a b.csv", ".hidden"}) {
            Files.writeString(root.resolve("data/" + name), "x");
        }
        assertThat(TypedPath.is(typed)).isTrue();
        assertThat(TypedPath.found(typed, root).stream()
                        .map(TypedPath.Found::text)
                        .collect(Collectors.joining(" ")))
                .isEqualTo(found);
    }

    @ParameterizedTest
    @CsvSource({"/, true", "~, true", "visits_clean, false", "out of date, false", "C:\\data, true", "'', false"})
    void aTextIsAPathByItsSigns(String typed, boolean path) {
        assertThat(TypedPath.is(typed)).isEqualTo(path);
    }
}
