namespace CalmQuill.Bench;

/// <summary>One line of the table: what, ours, the reference, how they compare, and the bar.</summary>
public sealed record Row(string What, string Ours, string Reference, string Ratio, string Bar, bool Met)
{
    public static string Table(IEnumerable<Row> rows) =>
        "| what | ours | reference | ratio | bar | met |\n| --- | --- | --- | --- | --- | --- |\n"
        + string.Concat(
            rows.Select(row => $"| {row.What} | {row.Ours} | {row.Reference} | {row.Ratio} | {row.Bar} | {(row.Met ? "yes" : "no")} |\n")
        );
}
