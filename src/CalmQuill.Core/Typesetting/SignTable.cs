using System.Globalization;

namespace CalmQuill.Core.Typesetting;

/// <summary>Properties of code points by the Unicode Character Database, version 16. The table is made by <c>make-signs.mjs</c>.</summary>
internal sealed class SignTable
{
    /// <summary>Latin, Greek and Cyrillic, by far the most that is written, are found without a search.</summary>
    private const int Near = 0x530;

    private static readonly Lazy<SignTable> Read = new(() => new SignTable());
    private readonly int[] firsts;
    private readonly Sign[] signs;
    private readonly Sign[] near = new Sign[Near];
    private readonly Dictionary<int, (int Pair, bool Opens, int Same)> brackets = [];
    private readonly Dictionary<int, int> mirrored = [];

    private SignTable()
    {
        using var resource = new StreamReader(typeof(SignTable).Assembly.GetManifestResourceStream("signs.txt")!);
        var (starts, kinds) = (new List<int>(), new List<Sign>());
        while (resource.ReadLine() is { } line)
        {
            var parts = line.Split(' ');
            if (parts[0] == "(")
            {
                brackets[Code(parts[1])] = (Code(parts[2]), true, Code(parts[3]));
                brackets[Code(parts[2])] = (Code(parts[1]), false, Code(parts[3]));
            }
            else if (parts[0] == "m")
                mirrored[Code(parts[1])] = Code(parts[2]);
            else
            {
                var flags = parts.Length > 3 ? parts[3] : "";
                starts.Add(Code(parts[0]));
                kinds.Add(
                    new Sign(
                        Enum.Parse<BreakClass>(parts[1]),
                        Enum.Parse<BidiClass>(parts[2]),
                        flags.Contains('w', StringComparison.Ordinal),
                        flags.Contains('i', StringComparison.Ordinal),
                        flags.Contains('f', StringComparison.Ordinal),
                        flags.Contains('p', StringComparison.Ordinal)
                    )
                );
            }
        }

        (firsts, signs) = ([.. starts], [.. kinds]);
        for (var i = 0; i < Near; i++)
            near[i] = Search(i);
    }

    public static Sign Of(int code) => code < Near ? Read.Value.near[code] : Read.Value.Search(code);

    /// <summary>Of a bracket: the one that it goes with, whether it opens, and the opening one by which pairs are the same; null for any other sign.</summary>
    public static (int Pair, bool Opens, int Same)? BracketOf(int code) =>
        Read.Value.brackets.TryGetValue(code, out var bracket) ? bracket : null;

    /// <summary>The sign that stands for one in writing from right to left; the same where it is not turned round.</summary>
    public static int Mirrored(int code) => Read.Value.mirrored.GetValueOrDefault(code, code);

    private Sign Search(int code)
    {
        var place = Array.BinarySearch(firsts, code);
        return signs[place >= 0 ? place : ~place - 1];
    }

    private static int Code(string hex) => int.Parse(hex, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
}
