package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Outcome;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import java.util.stream.Collectors;

/// What is read of a source, as text: its names, and below them its rows, with `∅` for what is missing.
public final class ReadRows {
    private static final int MOST = 99;

    private ReadRows() {}

    public static String of(Outcome<SourceFile> source) {
        assertThat(source.problems()).isEmpty();
        String names = source.get().columns().stream().map(Column::name).collect(Collectors.joining("|"));
        return names + "\n" + withoutNames(source);
    }

    public static String withoutNames(Outcome<SourceFile> source) {
        assertThat(source.problems()).isEmpty();
        try (Preview preview = Preview.open(source.get()).get()) {
            return preview.firstRows(MOST).stream()
                    .map(r -> String.join("|", r))
                    .collect(Collectors.joining("\n"));
        }
    }
}
