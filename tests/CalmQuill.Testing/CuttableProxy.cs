using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;

namespace CalmQuill.Testing;

/// <summary>The network between one browser and the server: passes bytes on until it is cut.</summary>
public sealed class CuttableProxy : IDisposable
{
    private readonly TcpListener listener = new(IPAddress.Loopback, 0);
    private readonly ConcurrentDictionary<TcpClient, byte> open = new();
    private readonly Uri target;
    private volatile bool cut;

    public CuttableProxy(Uri target)
    {
        this.target = target;
        listener.Start();
        Address = new Uri($"http://127.0.0.1:{((IPEndPoint)listener.LocalEndpoint).Port}");
        _ = Accept();
    }

    public Uri Address { get; }

    /// <summary>Breaks every connection and lets no new one through.</summary>
    public void Cut()
    {
        cut = true;
        foreach (var client in open.Keys)
            client.Close();
    }

    public void Mend() => cut = false;

    public void Dispose()
    {
        listener.Stop();
        Cut();
    }

    private async Task Accept()
    {
        try
        {
            while (true)
                _ = Serve(await listener.AcceptTcpClientAsync());
        }
        catch (Exception ended) when (ended is SocketException or ObjectDisposedException) { }
    }

    private async Task Serve(TcpClient near)
    {
        using var far = new TcpClient();
        try
        {
            if (cut)
                return;
            open[near] = open[far] = 0;
            await far.ConnectAsync(target.Host, target.Port);
            await Task.WhenAny(near.GetStream().CopyToAsync(far.GetStream()), far.GetStream().CopyToAsync(near.GetStream()));
        }
        catch (Exception broken) when (broken is IOException or SocketException or ObjectDisposedException or InvalidOperationException) { }
        finally
        {
            near.Close();
            open.TryRemove(near, out _);
            open.TryRemove(far, out _);
        }
    }
}
