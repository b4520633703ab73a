package dev.trellisgorge.cluster;

/** What an error of the cluster says, in one line. */
final class Said {
    private Said() {
    }

    static String of(Throwable wrong) {
        if (wrong.getCause() != null && (wrong.getMessage() == null || wrong.getMessage().equals("Boxed Exception"))) {
            return of(wrong.getCause()); // an error in the clothes of an exception
        }
        String first = (wrong.getMessage() == null ? wrong.toString() : wrong.getMessage()).lines().findFirst().orElse("");
        return first.replaceFirst("^\\[[A-Z_.]+\\] ", "").replaceFirst(" SQLSTATE: \\w+$", "").strip();
    }
}
