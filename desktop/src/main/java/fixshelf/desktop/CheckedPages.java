package fixshelf.desktop;

import fixshelf.language.Definition;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Stream;

/// Results of checks, kept as long as a page and all that it calls stay as they are: an edit of one fix runs only
/// what depends on it. Used by one thread.
final class CheckedPages<T> {
    private record Known<R>(List<Definition> needs, List<R> results) {}

    private final Map<FixPage, Known<T>> known = new IdentityHashMap<>();

    /// The results for all fixes of the shelf; `run` is asked for those that changed.
    List<T> check(Shelf shelf, BiFunction<Shelf, List<FixPage>, List<T>> run, Function<T, FixPage> pageOf) {
        List<FixPage> changed = shelf.fixes().stream()
                .filter(p -> !known.containsKey(p) || !known.get(p).needs().equals(needs(shelf, p)))
                .toList();
        known.keySet().retainAll(shelf.fixes());
        List<T> fresh = changed.isEmpty() ? List.of() : run.apply(shelf, changed);
        for (FixPage page : changed) {
            List<T> own = fresh.stream().filter(r -> pageOf.apply(r) == page).toList();
            known.put(page, new Known<>(needs(shelf, page), own));
        }
        List<T> all = new ArrayList<>();
        shelf.fixes().forEach(p -> all.addAll(known.get(p).results()));
        return all;
    }

    /// The fix itself, and those that its promises name.
    private static List<Definition> needs(Shelf shelf, FixPage page) {
        return Stream.concat(Stream.of(page), page.promises().stream().flatMap(p -> shelf.fix(p.fix()).stream()))
                .flatMap(p -> shelf.definition(p).value().stream())
                .toList();
    }
}
