package fixshelf.export;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.check.Parity;
import fixshelf.check.ParityResult;
import fixshelf.check.Subject;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.render.Language;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;

/// What was proven of the functions of an exported folder before it was made: on which engine here,
/// when, by how many cases and made-up values. It goes into the folder, and is read like the
/// receipt of any other engine.
final class Proven {
    private static final ObjectMapper JSON = new ObjectMapper();

    private Proven() {}

    /// A receipt of this engine; empty text where the engine is not here.
    ///
    /// @param fixes those that are exported
    /// @param digest the number of their functions
    /// @param values how many made-up values each of them is tried on beside its cases
    static String write(Shelf shelf, Language language, List<Export.Exported> fixes, String digest, int values) {
        Optional<FixEngine> here =
                FixEngines.of(language).filter(e -> e.presence().isHere());
        if (here.isEmpty()) {
            return "";
        }
        FixEngine engine = here.get();
        FixEngine reference = FixEngines.ALL.getFirst();
        List<FixPage> pages = fixes.stream().map(Export.Exported::page).toList();
        ObjectNode node = JSON.createObjectNode()
                .put("fix_shelf_receipt", 1)
                .put("language", language.id())
                .put("digest", digest)
                .put("engine", version(engine))
                .put("at", Instant.now().truncatedTo(ChronoUnit.SECONDS).toString());
        Map<String, Integer> ran = new TreeMap<>();
        Map<String, Integer> failing = new TreeMap<>();
        for (CaseResult result : Cases.run(shelf, pages, engine)) {
            if (result.answer() instanceof Answer.NotSaid) {
                continue;
            }
            ran.merge(result.page().name(), 1, Integer::sum);
            failing.merge(result.page().name(), result.holds() ? 0 : 1, Integer::sum);
        }
        ObjectNode cases = node.putObject("cases");
        ran.forEach(cases::put);
        ObjectNode failed = node.putObject("failing");
        failing.forEach((fix, n) -> {
            if (n > 0) {
                failed.put(fix, n);
            }
        });
        node.put("compared_with", version(reference));
        ObjectNode compared = node.putObject("made_up_values");
        ObjectNode differing = node.putObject("differing");
        Map<String, List<ParityResult>> byFix = Parity.check(
                        reference,
                        List.of(engine),
                        new ArrayList<>(Subject.ofFixes(shelf, pages)),
                        Parity.Settings.of(values))
                .stream()
                .collect(Collectors.groupingBy(r -> r.subject().name(), TreeMap::new, Collectors.toList()));
        byFix.forEach((fix, results) -> {
            compared.put(fix, sum(results, r -> r.verdict() instanceof ParityResult.NotRun ? 0 : r.rows()));
            int differ = sum(results, r -> r.verdict() instanceof ParityResult.Differs d ? d.differing() : 0);
            if (differ > 0) {
                differing.put(fix, differ);
            }
        });
        try {
            return JSON.writeValueAsString(node) + "\n";
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a tree in memory can be written", e);
        }
    }

    private static String version(FixEngine engine) {
        return engine.presence() instanceof FixEngine.Presence.Here(String version) ? version : "";
    }

    private static int sum(List<ParityResult> results, Function<ParityResult, Integer> of) {
        return results.stream().mapToInt(of::apply).sum();
    }
}
