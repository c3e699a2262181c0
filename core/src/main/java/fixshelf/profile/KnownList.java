package fixshelf.profile;

import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.work.Datasets;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// A list that a column may be held against: a column of a small dataset of the shelf in which no value comes twice.
///
/// @param values without blanks at their ends
public record KnownList(String dataset, String column, Set<String> values) {
    private static final long MOST_BYTES = 1 << 18;
    private static final int MOST_VALUES = 5_000;
    private static final int FEWEST_VALUES = 3;

    public KnownList {
        values = Set.copyOf(values);
    }

    String name() {
        return dataset + "(" + column + ")";
    }

    /// The lists of a shelf, but for those of the dataset that is looked at. A file that cannot be read is passed over:
    /// it is told where it is looked at itself.
    public static List<KnownList> of(Shelf shelf, SourceFile lookedAt) {
        List<KnownList> all = new ArrayList<>();
        for (DatasetPage dataset : shelf.datasets()) {
            Optional<SourceFile> file = Datasets.openHere(shelf, dataset.name()).value();
            if (file.isPresent() && !file.get().file().equals(lookedAt.file()) && isSmall(file.get())) {
                DataLook.open(file.get(), MOST_VALUES).value().ifPresent(data -> {
                    try (data) {
                        all.addAll(lists(dataset.name(), data));
                    }
                });
            }
        }
        return List.copyOf(all);
    }

    private static boolean isSmall(SourceFile file) {
        try {
            return Files.size(file.file()) <= MOST_BYTES;
        } catch (IOException e) {
            return false;
        }
    }

    private static List<KnownList> lists(String dataset, DataLook data) {
        List<KnownList> lists = new ArrayList<>();
        for (int i = 0; i < data.file().columns().size(); i++) {
            List<ColumnLook.Common> values = data.values(i, MOST_VALUES).value().orElse(List.of());
            Set<String> distinct = new HashSet<>();
            values.forEach(v -> distinct.add(ColumnTally.stripped(v.value())));
            boolean once = values.stream().allMatch(v -> v.rows() == 1);
            if (data.isWhole() && once && distinct.size() >= FEWEST_VALUES && !distinct.contains("")) {
                lists.add(new KnownList(dataset, data.file().columns().get(i).name(), distinct));
            }
        }
        return lists;
    }
}
