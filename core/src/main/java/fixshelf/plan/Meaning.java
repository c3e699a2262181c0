package fixshelf.plan;

import java.util.LinkedHashMap;
import java.util.SequencedMap;

/// What an operation does, in a sentence for each question that its reader has.
///
/// @param purpose what it is for, with plain words that one would search for
/// @param missing what it does with missing values
/// @param emptyText what it does with empty texts
/// @param order in which order rows stand afterwards, and what it needs to know of it
/// @param ties what decides between rows that are equal
/// @param types which types it takes and gives
/// @param names what happens when names meet
/// @param reports what is told of its work
/// @param languages in which languages it differs or cannot be said
public record Meaning(
        String purpose,
        String missing,
        String emptyText,
        String order,
        String ties,
        String types,
        String names,
        String reports,
        String languages) {
    /// The answers to the questions that have one, in order.
    public SequencedMap<String, String> answers() {
        SequencedMap<String, String> all = new LinkedHashMap<>();
        put(all, "missing values", missing);
        put(all, "empty text", emptyText);
        put(all, "order", order);
        put(all, "ties", ties);
        put(all, "types", types);
        put(all, "names", names);
        put(all, "reports", reports);
        put(all, "languages", languages);
        return all;
    }

    private static void put(SequencedMap<String, String> all, String question, String answer) {
        if (!answer.isBlank()) {
            all.put(question, answer);
        }
    }
}
