package fixshelf;

import static org.assertj.core.api.Assertions.assertThat;

import com.palantir.javaformat.java.Formatter;
import com.palantir.javaformat.java.JavaFormatterOptions;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/// All sources have one format. `mvn test -Dformat=write` puts them into it.
class SourcesAreFormattedTest {
    @Test
    @Tag("proof")
    void everySourceIsFormatted() throws Exception {
        Formatter formatter = Formatter.createFormatter(JavaFormatterOptions.builder()
                .style(JavaFormatterOptions.Style.PALANTIR)
                .build());
        List<Path> wrong = new ArrayList<>();
        for (Path file : sources()) {
            String text = Files.readString(file);
            String formatted = formatter.formatSource(text);
            if (!text.equals(formatted)) {
                wrong.add(file);
                if ("write".equals(System.getProperty("format"))) {
                    Files.writeString(file, formatted);
                }
            }
        }
        assertThat(wrong).as("run mvn test -Dformat=write").isEmpty();
    }

    private static List<Path> sources() throws Exception {
        try (Stream<Path> files = Files.walk(Path.of(".."))) {
            return files.filter(f -> f.toString().endsWith(".java")
                            && f.toString().contains("src")
                            && !f.toString().contains("target"))
                    .sorted()
                    .toList();
        }
    }
}
