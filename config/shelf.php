<?php

declare(strict_types=1);

return [
    'demo' => [
        'email' => env('DEMO_EMAIL', 'ida@marlpit.example'),
        'password' => env('DEMO_PASSWORD', ''),
    ],
    // The database connection on which long work tells how far it is, beside the one that it works on.
    'aside' => env('SHELF_ASIDE', 'aside'),
    // Names under which the application may be asked for besides that of APP_URL, and the addresses of proxies in front of it; each a list
    // with commas.
    'hosts' => array_values(array_filter(explode(',', (string) env('SHELF_HOSTS', '')))),
    'proxies' => array_values(array_filter(explode(',', (string) env('SHELF_PROXIES', '')))),
    // Bytes that one person may keep, and bytes that must stay free on the disk.
    'quota' => (int) env('SHELF_QUOTA', 20_000_000_000),
    'reserve' => (int) env('SHELF_RESERVE', 300_000_000),
    // Requests that one person may make in a minute, of those that compute; enough for a key that is held down.
    'requests' => (int) env('SHELF_REQUESTS', 1_500),
    // Seconds that a change waits for others that are under way.
    'waits_for_changes' => (int) env('SHELF_WAITS_FOR_CHANGES', 30),
    // Going back over many changes ends after so many seconds, and can be gone on with.
    'back_for' => (int) env('SHELF_BACK_FOR', 15),
    // What a person's machine is asked to draw at most: triangles, pieces that it is told of one by one, and megabytes that it keeps.
    'budget' => (int) env('SHELF_BUDGET', 400_000),
    'calls' => (int) env('SHELF_CALLS', 100_000),
    'megabytes' => (int) env('SHELF_MEGABYTES', 512),
    // What each worker does, the first before the next: files that were given; what is looked through; exports; pictures of projects; and,
    // as "later", coarser versions, which nobody waits for. One worker of two is always free of exports. Lists with commas, between them
    // semicolons; a worker more begins with the first list again.
    'workers' => explode(';', (string) env('SHELF_WORKERS', 'default,looks,pictures,later;exports,looks,default,pictures,later')),
    // How many more times a finished picture is drawn with a shifted raster, to smooth its edges.
    'smoothing' => max(0, min(5, (int) env('SHELF_SMOOTHING', 5))),
    // Pixels that the canvas draws for each of the page, in each direction: at 0.5 a picture costs a machine without a graphics card less
    // than half.
    'resolution' => max(0.25, min(1, (float) env('SHELF_RESOLUTION', 1))),
];
