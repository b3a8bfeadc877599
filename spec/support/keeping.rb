# frozen_string_literal: true

require "argon2"
require "rack/test"
require "securerandom"
require "vips"

# Things that are kept: a clean database before each example, and a teacher with a
# lesson and a session in it.
module Keeping
  TABLES = %i[drawn_on looked_at exports stamps second_marks second_markers
              grade_changes grade_entries grade_columns grade_categories gradebooks
              evidence seat_results question_results closing_results visits sittings opening_teams openings questions_set_aside
              curations pair_rounds session_events deliveries answers seats teams sessions
              lesson_revisions media bank_questions standards que_jobs lessons enrolments class_teachers classes
              students account_password_reset_keys sign_ups invitations set_up_keys outbox_mails counters accounts].freeze

  def self.included(group)
    group.before { empty_tables }
  end

  # Ids go on counting, as they do in life: a running program remembers sessions by id. Few rows are
  # sooner deleted than tables made anew.
  # A program of the spec before may still be writing, and stand in the way.
  def empty_tables
    tries ||= 0
    database.run(EMPTY)
  rescue Sequel::SerializationFailure
    (tries += 1) < 3 ? retry : raise
  end

  EMPTY = [*TABLES.map do |table|
    "DELETE FROM #{table}"
  end, "DELETE FROM school", "INSERT INTO school DEFAULT VALUES"].join(";").freeze

  # Goes down to a version of the schema, yields, and comes up again with no id given twice.
  def migrated_down_to(version)
    sequences = database[:pg_sequences].exclude(last_value: nil).select_hash(:sequencename, :last_value)
    Roost::Store::Database.migrate(target: version)
    yield
  ensure
    Roost::Store::Database.migrate
    sequences.each do |name, last|
      database.get(Sequel.function(:setval, name, last)) if database[:pg_sequences].where(sequencename: name).any?
    end
  end

  def database = Roost::Store::Database.connection

  def teacher(email: "falk@heronsgate.example", password: "sallow marsh at dusk", name: "Ms Falk")
    # Cheap hashes: the cost of argon2 is not what these specs are about.
    hash = Argon2::Password.new(t_cost: 1, m_cost: 3, p_cost: 1).create(password)
    Roost::Store::Accounts.new.create(email: email, name: name, password_hash: hash)
  end

  def kept_lesson(account_id, lesson = marsh_lesson) = Roost::Store::Lessons.new.create(account_id, lesson)

  def kept_session(account_id, lesson = marsh_lesson, **opts)
    form = room_options(one_touch: false, **opts).to_document.transform_values { |value| value == true ? "1" : value }
    Roost::Operations::StartSession.new.call(account_id, kept_lesson(account_id, lesson), form).value
  end

  def command(session, name, **arguments)
    Roost::Operations::CommandSession.new.call(session.account_id, session.id, name, arguments.transform_keys(&:to_s))
  end

  # @return [Array(Hash, String)] the seat and its token
  def take_seat(session, name = "Cleo")
    token = Roost::Operations::JoinSession.new.call(session.code, name).value
    [Roost::Store::Seats.new.by_token(token), token]
  end

  # @param more [Hash] what else a device says: :writer, :over, :elapsed, :tries
  def message(slide, fields, final: true, save_no: 1, save_id: SecureRandom.uuid, **more)
    { "slide" => slide, "fields" => fields, "final" => final, "save_no" => save_no, "save_id" => save_id,
      **more.transform_keys(&:to_s) }
  end

  def save(session, seat, *args, **opts)
    Roost::Operations::SaveAnswer.new.call(seat, Roost::Store::Sessions.new.lesson(session.id), message(*args, **opts))
  end

  # Runs the block for each item on as many threads as two web processes have.
  def at_once(items, &block)
    waiting = Queue.new
    items.each_with_index { |item, place| waiting << [item, place] }
    results = Array.new(items.length)
    workers = Array.new(8) do
      Thread.new do
        loop do
          item, place = waiting.pop(true)
          results[place] = block.call(item)
        rescue ThreadError
          break
        end
      end
    end
    workers.each(&:join)
    results
  end

  # Puts times of a session's questions back by so many seconds, and when its seats came.
  # @param columns [Array<Symbol>] of openings
  def put_back(session, seconds, *columns, slide: nil)
    back = ->(column) { [column, Sequel.lit("? - make_interval(secs => ?)", Sequel[column], seconds)] }
    database[:openings].where({ session_id: session.id, slide_id: slide }.compact).update(columns.to_h(&back))
    database[:seats].where(session_id: session.id).update([:joined_at].to_h(&back))
  end

  # @return [Roost::Core::Session::Moment]
  def moment(session) = Roost::Store::Moments.new.of(Roost::Store::Sessions.new.find(session.id))
end
