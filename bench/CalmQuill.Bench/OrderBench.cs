using CalmQuill.Core.Ordering;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>How long order keys become, beside the reference <c>fractional-indexing</c> on Node, with the same things put in the same order.</summary>
internal static class OrderBench
{
    private const ulong Device = 0x9E37_79B9_7F4A_7C15;

    public static IEnumerable<Row> Run()
    {
        var reference = Reference.Of("orders.mjs");
        foreach (
            var (name, what, most, count, next) in new (string, string, int, int, Next)[]
            {
                ("end", "20,000 put at the end", 14, 20_000, (_, low, high) => Upper(low, OrderKey.Between(high, null, Device))),
                (
                    "beginning",
                    "20,000 put at the beginning",
                    14,
                    20_000,
                    (_, low, high) => Lower(OrderKey.Between(null, low, Device), high)
                ),
                (
                    "after",
                    "20,000 put right after one thing",
                    40,
                    20_000,
                    (_, low, high) => Upper(low, OrderKey.Between(low, high, Device))
                ),
                (
                    "before",
                    "20,000 put right before one thing",
                    40,
                    20_000,
                    (_, low, high) => Lower(OrderKey.Between(low, high, Device), high)
                ),
                (
                    "inward",
                    "2,000 put inward by turns",
                    400,
                    2_000,
                    (i, low, high) =>
                        i % 2 == 0 ? Lower(OrderKey.Between(low, high, Device), high) : Upper(low, OrderKey.Between(low, high, Device))
                ),
            }
        )
        {
            var (ours, theirs) = (Longest(count, next), reference.GetProperty(name).GetInt32());
            yield return new Row(
                $"order keys, {what}",
                $"{ours} signs",
                $"{theirs} signs (`fractional-indexing`)",
                FormattableString.Invariant($"{(double)ours / theirs:0.00}"),
                $"at most {most}",
                ours <= most
            );
        }
    }

    private delegate (string Key, string Low, string High) Next(int i, string low, string high);

    private static (string, string, string) Upper(string low, string key) => (key, low, key);

    private static (string, string, string) Lower(string key, string high) => (key, key, high);

    private static int Longest(int count, Next next)
    {
        var low = OrderKey.Between(null, null, Device);
        var high = OrderKey.Between(low, null, Device);
        var most = 0;
        for (var i = 0; i < count; i++)
        {
            (var key, low, high) = next(i, low, high);
            most = Math.Max(most, key.Length);
        }

        return most;
    }
}
