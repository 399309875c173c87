using static CalmQuill.Core.Typesetting.BidiClass;

namespace CalmQuill.Core.Typesetting;

/// <summary>One paragraph on its way through the rules of UAX #9, named as there.</summary>
/// <param name="classes">The classes of its code points.</param>
/// <param name="codes">The code points, for brackets; null where they are not known.</param>
internal sealed class BidiParagraph(BidiClass[] classes, IReadOnlyList<int>? codes)
{
    /// <summary>How deep directions may lie in each other (BD2).</summary>
    private const int MostDepth = 125;

    /// <summary>How many brackets may be open at once (BD16).</summary>
    private const int MostBrackets = 63;

    private readonly BidiClass[] types = [.. classes];
    private readonly byte[] levels = new byte[classes.Length];

    /// <summary>The levels before what stands in them is looked at.</summary>
    private byte[] embedded = [];

    /// <summary>For each isolate, where it ends, and the other way round; −1 for none (BD9).</summary>
    private readonly int[] matches = Matches(classes);

    public (byte[] Levels, byte Base) Resolve(bool? fromRight)
    {
        var start = fromRight is { } known ? (byte)(known ? 1 : 0) : FirstStrong(0, classes.Length);
        Embed(start);
        embedded = [.. levels];
        foreach (var sequence in Sequences())
            Resolve(sequence, start);
        Trail(start);
        return (levels, start);
    }

    /// <summary>P2, P3: 1 where the first strong letter outside isolates runs from right to left, else 0.</summary>
    private byte FirstStrong(int from, int to)
    {
        for (var i = from; i < to; i++)
        {
            if (classes[i] is L)
                return 0;
            if (classes[i] is R or AL)
                return 1;
            if (classes[i] is LRI or RLI or FSI)
            {
                if (matches[i] < 0)
                    return 0;
                i = matches[i];
            }
        }

        return 0;
    }

    /// <summary>X1 to X8: levels by what is embedded in what.</summary>
    private void Embed(byte start)
    {
        var stack = new Stack<(byte Level, BidiClass? Override, bool IsIsolate)>();
        stack.Push((start, null, false));
        int overflowIsolates = 0,
            overflowEmbeddings = 0,
            validIsolates = 0;
        for (var i = 0; i < classes.Length; i++)
        {
            var top = stack.Peek();
            switch (classes[i])
            {
                case RLE or LRE or RLO or LRO:
                    levels[i] = top.Level;
                    var isRight = classes[i] is RLE or RLO;
                    var level = Next(top.Level, isRight);
                    if (level <= MostDepth && overflowIsolates == 0 && overflowEmbeddings == 0)
                        stack.Push(
                            (
                                (byte)level,
                                classes[i] is RLO ? R
                                : classes[i] is LRO ? L
                                : null,
                                false
                            )
                        );
                    else if (overflowIsolates == 0)
                        overflowEmbeddings++;
                    break;
                case RLI or LRI or FSI:
                    levels[i] = top.Level;
                    types[i] = top.Override ?? types[i];
                    var right =
                        classes[i] is RLI || (classes[i] is FSI && FirstStrong(i + 1, matches[i] < 0 ? classes.Length : matches[i]) == 1);
                    var inner = Next(top.Level, right);
                    if (inner <= MostDepth && overflowIsolates == 0 && overflowEmbeddings == 0)
                    {
                        validIsolates++;
                        stack.Push(((byte)inner, null, true));
                    }
                    else
                        overflowIsolates++;
                    break;
                case PDI:
                    if (overflowIsolates > 0)
                        overflowIsolates--;
                    else if (validIsolates > 0)
                    {
                        overflowEmbeddings = 0;
                        while (!stack.Peek().IsIsolate)
                            stack.Pop();
                        stack.Pop();
                        validIsolates--;
                    }

                    levels[i] = stack.Peek().Level;
                    types[i] = stack.Peek().Override ?? types[i];
                    break;
                case PDF:
                    levels[i] = top.Level;
                    if (overflowIsolates > 0)
                        break;
                    if (overflowEmbeddings > 0)
                        overflowEmbeddings--;
                    else if (!top.IsIsolate && stack.Count > 1)
                        stack.Pop();
                    break;
                case B:
                    levels[i] = start;
                    break;
                default:
                    levels[i] = top.Level;
                    if (classes[i] is not BN)
                        types[i] = top.Override ?? types[i];
                    break;
            }
        }
    }

    private static int Next(int level, bool isRight) => isRight ? (level + 1) | 1 : (level + 2) & ~1;

    /// <summary>Whether the rules from W1 on pass over a code point (X9).</summary>
    private bool IsPassedOver(int i) => classes[i] is RLE or LRE or RLO or LRO or PDF or BN;

    /// <summary>X10, BD13: what belongs together though isolates lie between.</summary>
    private List<List<int>> Sequences()
    {
        var runs = new List<List<int>>();
        var runOf = new int[classes.Length];
        var last = -1;
        for (var i = 0; i < classes.Length; i++)
        {
            if (IsPassedOver(i))
                continue;
            if (last < 0 || levels[i] != levels[last])
                runs.Add([]);
            runs[^1].Add(i);
            runOf[i] = runs.Count - 1;
            last = i;
        }

        var sequences = new List<List<int>>();
        foreach (var run in runs)
        {
            if (classes[run[0]] is PDI && matches[run[0]] >= 0)
                continue;
            var sequence = new List<int>(run);
            while (classes[sequence[^1]] is LRI or RLI or FSI && matches[sequence[^1]] is >= 0 and var end)
                sequence.AddRange(runs[runOf[end]]);
            sequences.Add(sequence);
        }

        return sequences;
    }

    private void Resolve(List<int> sequence, byte start)
    {
        var level = embedded[sequence[0]];
        var before = Neighbour(sequence[0], -1, start);
        var behind = classes[sequence[^1]] is LRI or RLI or FSI ? start : Neighbour(sequence[^1], 1, start);
        BidiClass first = Math.Max(level, before) % 2 == 1 ? R : L,
            last = Math.Max(level, behind) % 2 == 1 ? R : L;
        var here = sequence.Select(i => types[i]).ToArray();
        Weak(here, first);
        var direction = level % 2 == 1 ? R : L;
        if (codes is not null)
            Brackets(here, sequence, first, direction);
        Neutral(here, first, last, direction);
        for (var k = 0; k < here.Length; k++)
            levels[sequence[k]] = (byte)(level + Raised(here[k], level));
    }

    /// <summary>I1, I2: by how much a direction raises the level that it stands at.</summary>
    private static int Raised(BidiClass type, int level) =>
        (level % 2, type) switch
        {
            (0, L) or (1, R) => 0,
            (0, AN or EN) => 2,
            _ => 1,
        };

    /// <summary>The level of what stands beside a code point; the paragraph's where nothing does.</summary>
    private byte Neighbour(int i, int step, byte start)
    {
        for (i += step; i >= 0 && i < classes.Length; i += step)
        {
            if (!IsPassedOver(i))
                return embedded[i];
        }

        return start;
    }

    /// <summary>W1 to W7.</summary>
    private static void Weak(BidiClass[] here, BidiClass first)
    {
        for (var k = 0; k < here.Length; k++)
        {
            if (here[k] is NSM)
                here[k] =
                    k == 0 ? first
                    : here[k - 1] is LRI or RLI or FSI or PDI ? ON
                    : here[k - 1];
        }

        var strong = first;
        for (var k = 0; k < here.Length; k++)
        {
            if (here[k] is L or R or AL)
                strong = here[k];
            else if (here[k] is EN && strong is AL)
                here[k] = AN;
        }

        for (var k = 0; k < here.Length; k++)
        {
            if (here[k] is AL)
                here[k] = R;
        }

        for (var k = 1; k + 1 < here.Length; k++)
        {
            if (here[k] is ES && here[k - 1] is EN && here[k + 1] is EN)
                here[k] = EN;
            else if (here[k] is CS && here[k - 1] is EN or AN && here[k + 1] == here[k - 1])
                here[k] = here[k - 1];
        }

        for (var k = 0; k < here.Length; k++)
        {
            if (here[k] is not ET)
                continue;
            var end = k;
            while (end < here.Length && here[end] is ET)
                end++;
            if ((k > 0 && here[k - 1] is EN) || (end < here.Length && here[end] is EN))
                Array.Fill(here, EN, k, end - k);
            k = end - 1;
        }

        strong = first;
        for (var k = 0; k < here.Length; k++)
        {
            if (here[k] is ES or ET or CS)
                here[k] = ON;
            if (here[k] is L or R)
                strong = here[k];
            else if (here[k] is EN && strong is L)
                here[k] = L;
        }
    }

    /// <summary>N0: brackets take the direction of what stands in them.</summary>
    private void Brackets(BidiClass[] here, List<int> sequence, BidiClass first, BidiClass direction)
    {
        foreach (var (open, close) in Pairs(here, sequence))
        {
            var found = false;
            var opposite = false;
            for (var k = open + 1; k < close && !found; k++)
            {
                var strong = Strong(here[k]);
                found = strong == direction;
                opposite |= strong is not null && strong != direction;
            }

            BidiClass? takes = null;
            if (found)
                takes = direction;
            else if (opposite)
            {
                var context = first;
                for (var k = open - 1; k >= 0; k--)
                {
                    if (Strong(here[k]) is not { } strong)
                        continue;
                    context = strong;
                    break;
                }

                takes = context;
            }

            if (takes is not { } taken)
                continue;
            foreach (var k in new[] { open, close })
            {
                here[k] = taken;
                // Marks on a bracket go with it.
                for (var mark = k + 1; mark < here.Length && classes[sequence[mark]] is NSM; mark++)
                    here[mark] = taken;
            }
        }
    }

    /// <summary>BD16: which brackets belong together, in the order of those that open.</summary>
    private List<(int Open, int Close)> Pairs(BidiClass[] here, List<int> sequence)
    {
        var pairs = new List<(int Open, int Close)>();
        var open = new List<(int Place, int Same)>();
        for (var k = 0; k < here.Length; k++)
        {
            if (here[k] is not ON || SignTable.BracketOf(codes![sequence[k]]) is not { } bracket)
                continue;
            if (bracket.Opens)
            {
                if (open.Count == MostBrackets)
                    return [];
                open.Add((k, bracket.Same));
                continue;
            }

            var match = open.FindLastIndex(one => one.Same == bracket.Same);
            if (match < 0)
                continue;
            pairs.Add((open[match].Place, k));
            open.RemoveRange(match, open.Count - match);
        }

        pairs.Sort();
        return pairs;
    }

    /// <summary>N1, N2.</summary>
    private static void Neutral(BidiClass[] here, BidiClass first, BidiClass last, BidiClass direction)
    {
        for (var k = 0; k < here.Length; k++)
        {
            if (!IsNeutral(here[k]))
                continue;
            var end = k;
            while (end < here.Length && IsNeutral(here[end]))
                end++;
            var before = k == 0 ? first : Strong(here[k - 1]);
            var behind = end == here.Length ? last : Strong(here[end]);
            Array.Fill(here, before == behind && before is { } both ? both : direction, k, end - k);
            k = end - 1;
        }
    }

    private static bool IsNeutral(BidiClass type) => type is B or S or WS or ON or LRI or RLI or FSI or PDI;

    /// <summary>The direction of a strong type; numbers count as from right to left.</summary>
    private static BidiClass? Strong(BidiClass type) =>
        type is L ? L
        : type is R or EN or AN ? R
        : null;

    /// <summary>L1: white space at the end, and before what parts, is at the paragraph's level.</summary>
    private void Trail(byte start)
    {
        var trails = true;
        for (var i = classes.Length - 1; i >= 0; i--)
        {
            if (classes[i] is B or S)
            {
                levels[i] = start;
                trails = true;
            }
            else if (classes[i] is WS or LRI or RLI or FSI or PDI || IsPassedOver(i))
            {
                if (trails)
                    levels[i] = start;
            }
            else
                trails = false;
        }
    }

    private static int[] Matches(BidiClass[] classes)
    {
        var matches = new int[classes.Length];
        Array.Fill(matches, -1);
        var open = new Stack<int>();
        for (var i = 0; i < classes.Length; i++)
        {
            if (classes[i] is LRI or RLI or FSI)
                open.Push(i);
            else if (classes[i] is B)
                open.Clear();
            else if (classes[i] is PDI && open.TryPop(out var start))
                (matches[start], matches[i]) = (i, start);
        }

        return matches;
    }
}
