package fixshelf.profile;

import fixshelf.plan.Line;
import java.util.Locale;

/// A line that would help against something odd, with what it did where it was tried.
///
/// @param name the fix or operation, as a reader knows it
/// @param odd how many rows had the oddity when it was tried
/// @param rid how many of these rows lost it, with a value that is still there unless it is to be missing
/// @param others how many other rows got another value
/// @param missing how many other rows lost their value
/// @param tried whether it was tried on the values; what an operation does to whole rows or columns is known before
public record Remedy(String name, Line line, long odd, long rid, long others, long missing, boolean tried) {
    /// What it did, in few words: `all, 0 others change`.
    public String words() {
        if (!tried) {
            return "";
        }
        String some = rid == odd ? "all" : String.format(Locale.ROOT, "%,d of %,d", rid, odd);
        return some
                + (others == 0
                        ? ""
                        : String.format(
                                Locale.ROOT, ", %,d %s", others, others == 1 ? "other changes" : "others change"))
                + (missing == 0
                        ? ""
                        : String.format(Locale.ROOT, ", %,d %s", missing, missing == 1 ? "is lost" : "are lost"));
    }
}
