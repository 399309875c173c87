using System.Threading.Channels;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace CalmQuill.Server.Mail;

/// <summary>A letter to somebody.</summary>
public sealed record Mail(string To, string Subject, string Text);

/// <summary>Sends mail aside from requests, so that no answer tells by its time whether a letter was written.</summary>
public sealed class MailSender(Settings settings, ILogger<MailSender> log) : BackgroundService
{
    private const int Tries = 3;
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(20),
        Longest = TimeSpan.FromSeconds(30);
    private readonly Channel<Mail> waiting = Channel.CreateBounded<Mail>(
        new BoundedChannelOptions(500) { FullMode = BoundedChannelFullMode.DropWrite }
    );

    /// <summary>Whether letters can be sent at all.</summary>
    public bool IsThere => settings.Mail is not null;

    public void Send(Mail mail) => waiting.Writer.TryWrite(mail);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings.Mail is not { } server)
            return;
        await foreach (var mail in waiting.Reader.ReadAllAsync(stoppingToken))
        {
            for (var tried = 1; tried <= Tries; tried++)
            {
                try
                {
                    await Deliver(server, mail, stoppingToken);
                    break;
                }
                catch (Exception problem) when (!stoppingToken.IsCancellationRequested)
                {
                    // Whom it was for is nobody's business who reads the log.
                    log.LogWarning("A letter could not be sent, try {Tried} of {Tries}: {Problem}", tried, Tries, problem.Message);
                    if (tried < Tries)
                        await Task.Delay(Pause, stoppingToken);
                }
            }
        }
    }

    private async Task Deliver(Uri server, Mail mail, CancellationToken stopping)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        limit.CancelAfter(Longest);
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
}
