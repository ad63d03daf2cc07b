<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Whose jobs wait, which worker runs one, and when somebody's job was last begun. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('jobs', function (Blueprint $table): void {
            $table->bigInteger('owner')->default(0);
            $table->bigInteger('worker')->default(0);
        });
        Schema::create('queue_turns', function (Blueprint $table): void {
            $table->string('queue');
            $table->bigInteger('owner');
            $table->timestampTz('begun_at', 6);
            $table->primary(['queue', 'owner']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('queue_turns');
        Schema::table('jobs', function (Blueprint $table): void {
            $table->dropColumn(['owner', 'worker']);
        });
    }
};
