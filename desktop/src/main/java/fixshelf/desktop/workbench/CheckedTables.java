package fixshelf.desktop.workbench;

import fixshelf.engine.FixEngine;
import fixshelf.engine.Stop;
import fixshelf.shelf.Shelf;
import fixshelf.work.JobParity;
import fixshelf.work.LoaderCases;
import fixshelf.work.OperationExamples;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/// What came of the cases of all table fixes. They are run again only where a page of a fix changed, not when jobs do.
/// Used by one thread.
final class CheckedTables {
    private static final AtomicReference<TablesChecked> TABLES =
            new AtomicReference<>(new TablesChecked(List.of(), Map.of()));

    /// What came of the table fixes of the shelf that was checked last.
    ///
    /// @param texts of all its fixes
    private record TablesChecked(List<String> texts, Map<String, List<JobParity>> results) {}

    private List<Object> checkedPages = List.of();
    private Map<String, List<JobParity>> tableCases = Map.of();

    Map<String, List<JobParity>> check(Shelf now, FixEngine duckdb) {
        List<Object> pages = new ArrayList<>(now.tableFixes());
        pages.addAll(now.fixes());
        boolean same = pages.size() == checkedPages.size()
                && IntStream.range(0, pages.size()).allMatch(i -> pages.get(i) == checkedPages.get(i));
        if (!same) {
            List<String> texts = Stream.concat(
                            now.tableFixes().stream().map(f -> f.source().text()),
                            now.fixes().stream().map(f -> f.source().text()))
                    .toList();
            TablesChecked before = TABLES.get();
            Map<String, List<JobParity>> all =
                    before.texts().equals(texts) ? before.results() : tableCases(now, duckdb);
            if (!Stop.isAsked()) {
                TABLES.set(new TablesChecked(texts, all));
            }
            checkedPages = pages;
            tableCases = all;
        }
        return tableCases;
    }

    private static Map<String, List<JobParity>> tableCases(Shelf now, FixEngine duckdb) {
        // All at once, so that the engine is started once.
        List<OperationExamples.Example> examples = now.tableFixes().stream()
                .flatMap(p -> OperationExamples.of(LoaderCases.ready(now, p), now.callables()).value().stream())
                .flatMap(List::stream)
                .toList();
        Map<String, List<JobParity>> all = new LinkedHashMap<>();
        now.tableFixes().forEach(p -> all.put(p.name(), new ArrayList<>()));
        OperationExamples.in(duckdb, examples).forEach(r -> all.get(r.job()).add(r));
        return all;
    }
}
