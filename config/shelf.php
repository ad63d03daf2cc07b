<?php

declare(strict_types=1);

return [
    'demo' => [
        'email' => env('DEMO_EMAIL', 'ida@marlpit.example'),
        'password' => env('DEMO_PASSWORD', ''),
    ],
    // Triangles that the machine is asked to draw at most while a person works.
    'budget' => (int) env('SHELF_BUDGET', 400_000),
];
