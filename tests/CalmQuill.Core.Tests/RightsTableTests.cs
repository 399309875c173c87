using CalmQuill.Core.Access;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>The one table of who may do what, and what an invitation may say.</summary>
public sealed class RightsTableTests
{
    /// <summary>For nobody, reader, writer and owner; and for the owner of a library of their own.</summary>
    private static readonly Dictionary<Act, bool[]> Expected = new()
    {
        [Act.Read] = [false, true, true, true, true],
        [Act.Answer] = [false, true, true, true, true],
        [Act.Write] = [false, false, true, true, true],
        [Act.LockOwn] = [false, false, true, true, true],
        [Act.LockAny] = [false, false, false, true, true],
        [Act.ShareOwn] = [false, false, true, true, true],
        [Act.ShareAny] = [false, false, false, true, true],
        [Act.Teach] = [false, false, true, true, true],
        [Act.CloseLectern] = [false, false, false, true, true],
        [Act.ManagePeople] = [false, false, false, true, false],
        [Act.ChangeGroup] = [false, false, false, true, false],
        [Act.LeaveGroup] = [false, true, true, true, false],
        [Act.DissolveGroup] = [false, false, false, true, false],
    };

    [Fact]
    public void Every_role_may_what_the_table_says()
    {
        Assert.Equal(Enum.GetValues<Act>(), Expected.Keys.Order());
        foreach (var (act, may) in Expected)
        {
            foreach (var role in Enum.GetValues<Role>())
                Assert.True(Rights.May(role, act) == may[(int)role], $"{role} {act}");
            Assert.True(Rights.MayInOwn(Role.Owner, act) == may[4], $"own {act}");
        }
    }

    [Theory]
    [InlineData(Role.None, false, false)]
    [InlineData(Role.Reader, true, false)]
    [InlineData(Role.Writer, true, true)]
    [InlineData(Role.Owner, true, true)]
    public void Pages_as_they_were_are_seen_by_who_reads_and_where_that_is_closed_by_who_writes(Role role, bool open, bool closed)
    {
        Assert.Equal(open, Rights.MaySeePast(role, isClosed: false));
        Assert.Equal(closed, Rights.MaySeePast(role, isClosed: true));
    }

    /// <summary>A guest reads, writes where they were let, and does nothing else, whatever role they were given.</summary>
    [Fact]
    public void A_guest_may_read_and_perhaps_write_and_nothing_else()
    {
        foreach (var act in Enum.GetValues<Act>())
        {
            foreach (var role in Enum.GetValues<Role>())
                Assert.Equal(act is Act.Read or Act.Answer or Act.Write && Rights.May(role, act), Rights.MayAsGuest(role, act));
        }
    }

    [Theory]
    [InlineData(Role.Owner, false, true, true)]
    [InlineData(Role.Writer, true, false, true)]
    [InlineData(Role.Writer, true, true, false)]
    [InlineData(Role.Writer, false, false, false)]
    [InlineData(Role.Reader, true, false, false)]
    public void A_notebook_is_shared_by_who_made_it_and_a_folder_by_an_owner(Role role, bool madeIt, bool isFolder, bool may) =>
        Assert.Equal(may, Rights.MayShare(role, madeIt, isFolder));

    [Theory]
    [InlineData(ShareWith.Everybody, true, 1, "", false)]
    [InlineData(ShareWith.Link, false, 1, "", true)]
    [InlineData(ShareWith.Person, false, 1, "a-passphrase", false)]
    [InlineData(ShareWith.Group, false, 1, "a-passphrase", false)]
    [InlineData(ShareWith.Link, false, 1, "short", false)]
    [InlineData(ShareWith.Link, false, -1, "", false)]
    [InlineData(ShareWith.Link, false, 366, "", false)]
    [InlineData((ShareWith)0, false, 1, "", false)]
    [InlineData((ShareWith)9, false, 1, "", false)]
    public void A_share_that_may_not_be_made_says_why(ShareWith with, bool writes, int days, string passphrase, bool copies) =>
        Assert.NotNull(new Share(with, writes, days, passphrase, copies).Problem);

    [Theory]
    [InlineData(ShareWith.Everybody, false, 365, "a-passphrase", true)]
    [InlineData(ShareWith.Link, true, 0, "a-passphrase", false)]
    [InlineData(ShareWith.Person, true, 0, "", false)]
    [InlineData(ShareWith.Group, false, 1, "", false)]
    public void A_share_within_its_bounds_may_be_made(ShareWith with, bool writes, int days, string passphrase, bool copies) =>
        Assert.Null(new Share(with, writes, days, passphrase, copies).Problem);

    [Theory]
    [InlineData(Role.Owner, 1, 1)]
    [InlineData(Role.None, 1, 1)]
    [InlineData(Role.Writer, 0, 1)]
    [InlineData(Role.Writer, 1_001, 1)]
    [InlineData(Role.Writer, int.MinValue, 1)]
    [InlineData(Role.Reader, 1, 0)]
    [InlineData(Role.Reader, 1, 366)]
    public void An_invitation_that_may_not_be_made_says_why(Role role, int uses, int days) =>
        Assert.NotNull(new Invitation(role, uses, days, false).Problem);

    [Theory]
    [InlineData(Role.Reader, 1, 1)]
    [InlineData(Role.Writer, Invitation.MostUses, Invitation.MostDays)]
    public void At_its_bounds_it_may_be_made(Role role, int uses, int days) => Assert.Null(new Invitation(role, uses, days, true).Problem);

    /// <summary>Time goes on and uses grow: once it lets nobody in, it never lets anybody in again.</summary>
    [Fact]
    public void An_invitation_that_lets_nobody_in_stays_so() =>
        Gen.Select(Gen.Int[0, 20], Gen.Int[1, 20], Gen.Int[-50, 50], Gen.Int[0, 20], Gen.Int[0, 50])
            .Sample(
                (used, most, hours, moreUsed, moreHours) =>
                {
                    var until = new DateTimeOffset(2026, 10, 5, 18, 0, 0, TimeSpan.Zero);
                    var now = until.AddHours(hours);
                    var before = Invitation.StateOf(until, used, most, now);
                    Assert.Equal(used < most && now < until, before == InvitationState.Open);
                    if (before != InvitationState.Open)
                        Assert.NotEqual(InvitationState.Open, Invitation.StateOf(until, used + moreUsed, most, now.AddHours(moreHours)));
                }
            );
}
