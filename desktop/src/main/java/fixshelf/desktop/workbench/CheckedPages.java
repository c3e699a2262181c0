package fixshelf.desktop.workbench;

import fixshelf.engine.Stop;
import fixshelf.language.tree.Definition;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Stream;

/// Results of checks, kept as long as a page and all that it calls stay as they are: an edit of one fix runs only
/// what depends on it. What came of the pages of a shelf is also remembered while the program runs, by their texts, so
/// that a shelf which is opened again is not checked again. Used by one thread.
final class CheckedPages<T> {
    private record Known<R>(List<Definition> needs, List<R> results) {}

    /// What came of the pages of a shelf, by their texts.
    ///
    /// @param <R> a result of one page
    static final class Remembered<R> {
        private static final int MOST_SHELVES = 4;

        private final BiFunction<R, FixPage, R> on;
        private final Map<List<String>, List<List<R>>> byTexts = new LinkedHashMap<>();

        /// @param on the same result for a page that was read again
        Remembered(BiFunction<R, FixPage, R> on) {
            this.on = on;
        }

        private static List<String> texts(List<FixPage> pages) {
            return pages.stream().map(p -> p.source().text()).toList();
        }

        private synchronized Optional<List<List<R>>> find(List<FixPage> pages) {
            return Optional.ofNullable(byTexts.get(texts(pages))).map(all -> {
                List<List<R>> again = new ArrayList<>();
                for (int i = 0; i < pages.size(); i++) {
                    FixPage page = pages.get(i);
                    again.add(all.get(i).stream().map(r -> on.apply(r, page)).toList());
                }
                return again;
            });
        }

        private synchronized void put(List<FixPage> pages, List<List<R>> results) {
            byTexts.put(texts(pages), results);
            if (byTexts.size() > MOST_SHELVES) {
                byTexts.remove(byTexts.keySet().iterator().next());
            }
        }
    }

    private final Map<FixPage, Known<T>> known = new IdentityHashMap<>();
    private final Optional<Remembered<T>> remembered;

    CheckedPages(Optional<Remembered<T>> remembered) {
        this.remembered = remembered;
    }

    /// The results for some fixes of the shelf; `run` is asked for those that changed.
    List<T> check(
            Shelf shelf,
            List<FixPage> pages,
            BiFunction<Shelf, List<FixPage>, List<T>> run,
            Function<T, FixPage> pageOf) {
        boolean first = known.isEmpty() && !pages.isEmpty();
        if (first) {
            remembered.flatMap(r -> r.find(pages)).ifPresent(all -> {
                for (int i = 0; i < pages.size(); i++) {
                    known.put(pages.get(i), new Known<>(needs(shelf, pages.get(i)), all.get(i)));
                }
            });
        }
        List<FixPage> changed = pages.stream()
                .filter(p -> !known.containsKey(p) || !known.get(p).needs().equals(needs(shelf, p)))
                .toList();
        known.keySet().retainAll(pages);
        List<T> fresh = changed.isEmpty() ? List.of() : run.apply(shelf, changed);
        for (FixPage page : changed) {
            List<T> own = fresh.stream().filter(r -> pageOf.apply(r) == page).toList();
            known.put(page, new Known<>(needs(shelf, page), own));
        }
        List<List<T>> all = pages.stream().map(p -> known.get(p).results()).toList();
        // What was stopped on the way says nothing of the pages.
        if (first && !changed.isEmpty() && !Stop.isAsked()) {
            remembered.ifPresent(r -> r.put(pages, all));
        }
        return all.stream().flatMap(List::stream).toList();
    }

    /// The fix itself, and those that its promises name.
    private static List<Definition> needs(Shelf shelf, FixPage page) {
        return Stream.concat(Stream.of(page), page.promises().stream().flatMap(p -> shelf.fix(p.fix()).stream()))
                .flatMap(p -> shelf.definition(p).value().stream())
                .toList();
    }
}
