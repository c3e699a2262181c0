package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Parameters;

/// A command that lists what a catalogue holds, by words for what it is for, or tells all about one entry.
///
/// @param <T> an entry
abstract class CatalogueCommand<T> extends ShelfOption {
    @Parameters(arity = "0..*", paramLabel = "WORD", description = "The name of one, or words for what it is for.")
    List<String> words = List.of();

    private final String entry;

    /// @param entry what an entry is called; the command is called so, with an s
    CatalogueCommand(String entry) {
        this.entry = entry;
    }

    /// The entry of that name.
    abstract Optional<T> named(String name);

    /// The entries that all of some words are about.
    abstract List<T> about(List<String> asked);

    /// Prints several entries, each in a line.
    abstract void list(List<T> entries);

    /// Prints all that is known of one.
    abstract void tell(T one);

    abstract void json(T one, ObjectNode node);

    /// Where else to look when no entry is about the words.
    void tellOthers() {}

    @Override
    public final Integer call() {
        Optional<T> one = words.size() == 1 ? named(words.getFirst()) : Optional.empty();
        List<T> found = one.map(List::of).orElseGet(() -> about(words));
        if (json) {
            ObjectNode node = Output.object();
            ArrayNode array = node.putArray(entry + "s");
            found.forEach(e -> json(e, array.addObject()));
            Output.json(out(), node);
        } else if (one.isPresent()) {
            tell(one.get());
        } else if (found.isEmpty()) {
            err().println("No " + entry + " is about " + String.join(" ", words) + ". All: fixshelf " + entry + "s");
            tellOthers();
            return Output.PROBLEMS;
        } else {
            list(found);
        }
        return Output.FINE;
    }
}
