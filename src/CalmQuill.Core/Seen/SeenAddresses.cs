namespace CalmQuill.Core.Seen;

/// <summary>Finds addresses of the web and of mail among words.</summary>
internal static class SeenAddresses
{
    /// <summary>So long an address is at most, letters.</summary>
    private const int Most = 2_000;

    /// <summary>An address without a scheme is one where it ends so (RFC 1591 names the first of them); others look too much like names of files.</summary>
    private static readonly HashSet<string> Ends =
    [
        "com",
        "org",
        "net",
        "edu",
        "gov",
        "int",
        "info",
        "eu",
        "de",
        "at",
        "ch",
        "uk",
        "ie",
        "fr",
        "nl",
        "be",
        "dk",
        "se",
        "no",
        "fi",
        "it",
        "es",
        "pt",
        "pl",
        "cz",
    ];

    private static readonly string[] Schemes = ["https://", "http://"];

    private static readonly (char Open, char Close)[] Pairs = [('(', ')'), ('[', ']'), ('{', '}')];

    public static IEnumerable<SeenPart> In(string line)
    {
        for (var at = 0; at < line.Length; at++)
        {
            if (char.IsWhiteSpace(line[at]))
                continue;
            var start = at;
            while (at < line.Length && !char.IsWhiteSpace(line[at]))
                at++;
            if (Read(line, start, at) is { } part)
                yield return part;
        }
    }

    /// <summary>What stands between two blanks.</summary>
    private static SeenPart? Read(string line, int start, int end)
    {
        if (end - start > Most)
            return null;
        foreach (var scheme in Schemes)
        {
            var at = line.IndexOf(scheme, start, end - start, StringComparison.OrdinalIgnoreCase);
            if (at < 0 || (at > start && char.IsLetterOrDigit(line[at - 1])))
                continue;
            return Web(line, at, end, "");
        }

        while (start < end && !char.IsLetterOrDigit(line[start]))
            start++;
        end = EndOf(line, start, end);
        var text = line[start..end];
        if (text.Contains('@', StringComparison.Ordinal))
            return Mail(text) ? new SeenPart(start, end, SeenKind.Mail, text) : null;
        var host = text.Split('/', '?', '#')[0];
        var isNamed = host.StartsWith("www.", StringComparison.OrdinalIgnoreCase) && IsHost(host);
        return isNamed || (IsHost(host) && Ends.Contains(host[(host.LastIndexOf('.') + 1)..])) ? Web(line, start, end, "https://") : null;
    }

    private static SeenPart? Web(string line, int start, int end, string scheme)
    {
        end = EndOf(line, start, end);
        var address = scheme + line[start..end];
        return
            address.Length <= Most
            && Uri.TryCreate(address, UriKind.Absolute, out var read)
            && read.Host.Length > 0
            && Links.LinkTarget.Read(address) is { Kind: "web" }
            ? new SeenPart(start, end, SeenKind.Link, address)
            : null;
    }

    /// <summary>What ends a sentence, or a bracket that was opened before, is no part of an address.</summary>
    private static int EndOf(string line, int start, int end)
    {
        while (end > start)
        {
            var last = line[end - 1];
            var pair = Array.Find(Pairs, pair => pair.Close == last);
            var isOwn = pair.Close == last && line[start..end].Count(c => c == pair.Open) >= line[start..end].Count(c => c == last);
            if (isOwn || (pair.Close != last && !IsPause(last)))
                break;
            end--;
        }

        return end;
    }

    private static bool IsPause(char sign) => ".,;:!?…'\"’”»«›‹>|*".Contains(sign, StringComparison.Ordinal);

    /// <summary>Names with points between, as RFC 1034 has them, of which the last is of letters.</summary>
    private static bool IsHost(string text)
    {
        var names = text.Split('.');
        return names.Length >= 2
            && names.All(name => name.Length is > 0 and <= 63 && name[0] != '-' && name[^1] != '-' && name.All(IsOfHost))
            && names[^1].Length >= 2
            && names[^1].All(char.IsAsciiLetter);
    }

    private static bool IsOfHost(char sign) => char.IsAsciiLetterOrDigit(sign) || sign == '-';

    /// <summary>As RFC 5321 has them, without what is quoted.</summary>
    private static bool Mail(string text)
    {
        var at = text.IndexOf('@', StringComparison.Ordinal);
        var name = text[..at];
        return at is > 0 and <= 64
            && at == text.LastIndexOf('@')
            && IsHost(text[(at + 1)..])
            && name[0] != '.'
            && name[^1] != '.'
            && !name.Contains("..", StringComparison.Ordinal)
            && name.All(sign => char.IsAsciiLetterOrDigit(sign) || "!#$%&'*+-/=?^_`{|}~.".Contains(sign, StringComparison.Ordinal));
    }
}
