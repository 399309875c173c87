namespace CalmQuill.Store.People;

/// <summary>What deleting an account would do.</summary>
/// <param name="Notebooks">How many notebooks stand in the person's own library; those in the bin not counted.</param>
/// <param name="Shares">How much is shared out of that library, and would be taken back.</param>
/// <param name="Groups">The groups the person is in.</param>
public sealed record Leaving(int Notebooks, int Shares, IReadOnlyList<LeftGroup> Groups);

/// <summary>A group that somebody would leave.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Others">How many others are in it; with none, it is dissolved.</param>
/// <param name="IsLeaderless">Others are in it, and none of them is an owner: it has to be handed over first.</param>
public sealed record LeftGroup(Guid Id, string Name, int Others, bool IsLeaderless);
