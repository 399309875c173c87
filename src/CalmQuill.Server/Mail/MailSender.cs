using System.Security.Cryptography;
using System.Text.Json;
using System.Threading.Channels;
using CalmQuill.Store.Mail;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.AspNetCore.DataProtection;
using MimeKit;

namespace CalmQuill.Server.Mail;

/// <summary>A letter to somebody.</summary>
public sealed record Mail(string To, string Subject, string Text);

/// <summary>
/// Sends mail aside from requests, so that no answer tells by its time whether a letter was written. Letters are kept until they are sent: while the mail server is away they
/// wait, for days if need be.
/// </summary>
public sealed class MailSender(
    Settings settings,
    MailStore waiting,
    IDataProtectionProvider protection,
    TimeProvider clock,
    ILogger<MailSender> log
) : BackgroundService
{
    private const int MostAtOnce = 20;

    /// <summary>A letter that was not sent for so long is given up.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromDays(3);

    /// <summary>Whoever took letters says what came of them by then, else another takes them.</summary>
    private static readonly TimeSpan Taken = TimeSpan.FromMinutes(15);

    private static readonly TimeSpan LongestTry = TimeSpan.FromSeconds(30),
        Look = TimeSpan.FromSeconds(20);

    /// <summary>How long is waited after each try; then always as long as at last.</summary>
    private static readonly TimeSpan[] Pauses =
    [
        TimeSpan.FromSeconds(20),
        TimeSpan.FromMinutes(1),
        TimeSpan.FromMinutes(5),
        TimeSpan.FromMinutes(20),
        TimeSpan.FromHours(1),
    ];

    private readonly Channel<Mail> written = Channel.CreateBounded<Mail>(
        new BoundedChannelOptions(500) { FullMode = BoundedChannelFullMode.DropWrite }
    );
    private readonly SemaphoreSlim due = new(0);
    private readonly IDataProtector cipher = protection.CreateProtector("letters that wait");

    /// <summary>Whether letters can be sent at all.</summary>
    public bool IsThere => settings.Mail is not null;

    /// <summary>Sends a letter; in no time, whatever becomes of it.</summary>
    public void Send(Mail mail) => written.Writer.TryWrite(mail);

    /// <summary>Sends a letter that carries an invitation. Once this is done it is not lost.</summary>
    public async Task Post(Mail mail, Guid? invitation, CancellationToken cancel)
    {
        await waiting.Write(cipher.Protect(JsonSerializer.SerializeToUtf8Bytes(mail)), invitation, clock.GetUtcNow(), cancel);
        due.Release();
    }

    /// <summary>When a letter is tried again that could not be sent so often before; null when it is not.</summary>
    public static TimeSpan? PauseAfter(int tries)
    {
        var pause = Pauses[Math.Min(tries, Pauses.Length - 1)];
        var waited = TimeSpan.Zero;
        for (var i = 0; i < tries; i++)
            waited += Pauses[Math.Min(i, Pauses.Length - 1)];
        return waited < Longest ? pause : null;
    }

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        settings.Mail is { } server ? Task.WhenAll(Keep(stoppingToken), DeliverAll(server, stoppingToken)) : Task.CompletedTask;

    private async Task Keep(CancellationToken stopping)
    {
        await foreach (var mail in written.Reader.ReadAllAsync(stopping))
        {
            try
            {
                await Post(mail, null, stopping);
            }
            catch (Exception problem) when (!stopping.IsCancellationRequested)
            {
                log.LogWarning("A letter could not be kept to be sent: {Problem}", problem.Message);
            }
        }
    }

    private async Task DeliverAll(Uri server, CancellationToken stopping)
    {
        while (!stopping.IsCancellationRequested)
        {
            try
            {
                var now = clock.GetUtcNow();
                var letters = await waiting.Take(MostAtOnce, now, now + Taken, stopping);
                foreach (var letter in letters)
                    await Try(server, letter, stopping);
                if (letters.Count < MostAtOnce)
                    await due.WaitAsync(Look, stopping);
            }
            catch (Exception problem) when (!stopping.IsCancellationRequested)
            {
                log.LogWarning("Letters that wait are looked at again in a moment: {Problem}", problem.Message);
                await Task.Delay(Look, stopping);
            }
        }
    }

    private async Task Try(Uri server, DueMail letter, CancellationToken stopping)
    {
        try
        {
            await Deliver(server, JsonSerializer.Deserialize<Mail>(cipher.Unprotect(letter.Content))!, stopping);
            await waiting.Sent(letter.Id, stopping);
        }
        catch (CryptographicException)
        {
            log.LogWarning("A letter was enciphered with keys that are not here any more, and is given up.");
            await waiting.GiveUp(letter.Id, stopping);
        }
        catch (Exception problem) when (!stopping.IsCancellationRequested)
        {
            // Whom it was for is nobody's business who reads the log.
            log.LogWarning("A letter could not be sent, try {Tried}: {Problem}", letter.Tries + 1, problem.Message);
            if (PauseAfter(letter.Tries) is { } pause)
                await waiting.Again(letter.Id, clock.GetUtcNow() + pause, stopping);
            else
                await waiting.GiveUp(letter.Id, stopping);
        }
    }

    private async Task Deliver(Uri server, Mail mail, CancellationToken stopping)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        limit.CancelAfter(LongestTry);
        var message = new MimeMessage();
        message.From.Add(new MailboxAddress("Calm Quill", settings.MailFrom));
        message.To.Add(new MailboxAddress("", mail.To));
        message.Subject = mail.Subject;
        message.Body = new TextPart("plain") { Text = mail.Text };
        using var client = new SmtpClient();
        var isSecure = server.Scheme == "smtps";
        var port =
            server.Port > 0 ? server.Port
            : isSecure ? 465
            : 25;
        await client.ConnectAsync(
            server.Host,
            port,
            isSecure ? SecureSocketOptions.SslOnConnect : SecureSocketOptions.StartTlsWhenAvailable,
            limit.Token
        );
        if (server.UserInfo.Split(':', 2) is [{ Length: > 0 } user, var password])
            await client.AuthenticateAsync(Uri.UnescapeDataString(user), Uri.UnescapeDataString(password), limit.Token);
        await client.SendAsync(message, limit.Token);
        await client.DisconnectAsync(true, limit.Token);
    }

    public override void Dispose()
    {
        due.Dispose();
        base.Dispose();
    }
}
