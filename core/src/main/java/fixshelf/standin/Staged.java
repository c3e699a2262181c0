package fixshelf.standin;

import fixshelf.problem.Outcome;
import fixshelf.profile.DataLook;
import fixshelf.shelf.Shelf;
import fixshelf.work.Datasets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/// A dataset whose rows are staged.
///
/// @param name of the dataset
public record Staged(String name, DataLook look) {
    /// Does something with datasets that are staged and others, which are staged as long as that.
    ///
    /// @param others their names
    /// @param most how many rows of each of the others
    public static <T> Outcome<T> with(
            Shelf shelf, List<Staged> staged, List<String> others, long most, Function<List<Staged>, Outcome<T>> work) {
        List<Staged> all = new ArrayList<>(staged);
        try {
            for (String name : others) {
                Outcome<DataLook> look = Datasets.open(shelf, name).then(f -> DataLook.open(f, most));
                if (!look.isPresent()) {
                    return Outcome.failed(look.problems());
                }
                all.add(new Staged(name, look.get()));
            }
            return work.apply(all);
        } finally {
            all.stream().skip(staged.size()).forEach(s -> s.look().close());
        }
    }
}
