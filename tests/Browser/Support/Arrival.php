<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;

/** A person who signs in and takes a file in without a browser: what those pages do is tested elsewhere, and not shown again each time. */
final class Arrival
{
    public readonly CookieJar $cookies;

    private readonly Client $client;

    private string $token = '';

    public function __construct(string $base, string $email, string $password)
    {
        $this->cookies = new CookieJar;
        $this->client = new Client(['base_uri' => $base, 'cookies' => $this->cookies, 'allow_redirects' => false, 'timeout' => 60]);
        $this->read('/sign-in');
        $this->client->post('/sign-in', ['form_params' => ['_token' => $this->token, 'email' => $email, 'password' => $password]]);
    }

    /** @return string the path of the workbench, once the file has been taken in */
    public function takeIn(string $path): string
    {
        $this->read('/projects');
        $answer = $this->client->post('/imports', [
            'headers' => ['X-CSRF-TOKEN' => $this->token, 'Accept' => 'application/json'],
            'multipart' => [
                ['name' => 'sort_by', 'contents' => 'best'],
                ['name' => 'file', 'contents' => fopen($path, 'r'), 'filename' => basename($path)],
            ],
        ]);
        $import = (string) parse_url(json_decode((string) $answer->getBody(), true)['page'], PHP_URL_PATH);
        for ($try = 0; $try < 2000; $try++) {
            $report = $this->client->get($import)->getHeaderLine('Location');
            if (preg_match('~^(.*/projects/[a-z0-9]+)/~', $report, $found) === 1) {
                return (string) parse_url($found[1], PHP_URL_PATH);
            }
            usleep(40_000);
        }
        throw new \RuntimeException("$path is not taken in: ".strip_tags((string) $this->client->get($import)->getBody()));
    }

    private function read(string $path): void
    {
        $page = (string) $this->client->get($path)->getBody();
        $this->token = preg_match('~name="csrf-token" content="([^"]+)"~', $page, $found) === 1 ? $found[1] : '';
    }
}
