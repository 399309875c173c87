using System.Text;
using CalmQuill.Server.People;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Mail;
using CalmQuill.Store.Spots;

namespace CalmQuill.Server.Mail;

/// <summary>Mails to those who want it, once a day at most, what was said to them; nothing of a notebook with a lock, since a letter has none.</summary>
public sealed class Digests(
    DigestStore digests,
    SpotStore spots,
    LockStore locks,
    MailSender mail,
    Settings settings,
    TimeProvider clock,
    ILogger<Digests> log
) : BackgroundService
{
    private const int MostPeople = 200,
        MostLines = 30,
        MostWords = 300;
    private static readonly TimeSpan Look = TimeSpan.FromMinutes(15);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (!mail.IsThere)
            return;
        using var timer = new PeriodicTimer(Look, clock);
        do
        {
            try
            {
                await SendDue(stoppingToken);
            }
            catch (Exception problem) when (!stoppingToken.IsCancellationRequested)
            {
                log.LogWarning("What was said to people could not be mailed; it is tried again later: {Problem}", problem.Message);
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>Writes to all who are to be written to now; says how many those are.</summary>
    public async Task<int> SendDue(CancellationToken cancel)
    {
        var written = 0;
        foreach (var due in await digests.Due(MostPeople, cancel))
        {
            // Whoever has no sign-in has every lock shut.
            var locked = await locks.ShutFor(Guid.Empty, due.Person, null, cancel);
            var told = await spots.For(due.Person, due.Until, MostLines, locked, cancel);
            // Of what they may not see now nothing is told, and it is looked at again a day later. Who is told by another server meanwhile is not told twice.
            var until = told.Count > 0 ? told.Max(one => one.Received) : due.Until;
            if (!await digests.Take(due, until, cancel) || told.Count == 0)
                continue;
            await mail.Post(new Mail(due.Email, "What was said to you", Text(due, told)), null, cancel);
            written++;
        }

        return written;
    }

    private string Text(DueDigest due, IReadOnlyList<ToldAnswer> told)
    {
        var address = Letters.Address(settings);
        var text = new StringBuilder($"{due.Name}, this was said to you:\n");
        foreach (var one in told)
        {
            var words =
                one.Text.Length == 0 ? "(written by hand)"
                : one.Text.Length > MostWords ? one.Text[..MostWords] + " …"
                : one.Text;
            text.Append(
                $"\n{one.Name}, {one.NotebookName}, page {one.PageNumber}:\n{words}\n{address}/page/{one.Space}/{one.Notebook}/{one.Page}?mark={one.Spot}\n"
            );
        }

        return text.Append($"\nYou get this once a day at most. Under your name, it is turned off: {address}/account\n").ToString();
    }
}
