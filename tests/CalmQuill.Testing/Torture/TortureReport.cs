using System.Globalization;

namespace CalmQuill.Testing.Torture;

/// <summary>What a run tried, and what it found.</summary>
public sealed class TortureReport
{
    public int Seed { get; init; }

    /// <summary>Changes that people made.</summary>
    public int Acts { get; set; }

    public int ServerKills { get; set; }

    public int DatabaseKills { get; set; }

    public int TabsClosed { get; set; }

    public int NetworksCut { get; set; }

    public long RequestsCut { get; set; }

    public long RequestsTwice { get; set; }

    public long AnswersLate { get; set; }

    public long TransactionsAborted { get; set; }

    /// <summary>Different operations that a device showed as kept or as saved, all of which must be found.</summary>
    public int Promised { get; set; }

    /// <summary>Operations on the server at the end.</summary>
    public int Stored { get; set; }

    /// <summary>What is wrong, a sentence each; nothing when all is well.</summary>
    public List<string> Faults { get; } = [];

    public int Kills => ServerKills + DatabaseKills + TabsClosed;

    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"seed {Seed}: {Acts:#,0} changes; server killed {ServerKills} times, PostgreSQL {DatabaseKills}, tabs closed in the middle {TabsClosed}, networks cut {NetworksCut}, requests cut {RequestsCut:#,0}, sent twice {RequestsTwice:#,0}, answered late {AnswersLate:#,0}, transactions aborted {TransactionsAborted:#,0}; {Promised:#,0} operations promised, {Stored:#,0} stored; {(Faults.Count == 0 ? "nothing lost" : string.Join("; ", Faults))}"
        );
}
