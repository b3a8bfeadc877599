# frozen_string_literal: true

# When an answer counts is said twice, in Ruby and in the statement that saves: compared here.
RSpec.describe Roost::Core::Session::Acceptance do
  # Times of made-up situations, in seconds from now: round the edges, and well apart from them.
  around_now = [-5000.0, -3700.0, -3500.0, -30.0, -12.0, -8.0, -2.0, -0.5, 20.0, 5000.0]
  situations = 2400

  # What is the same of a situation in both: times from now, nil for none.
  let(:random) { Random.new(11) }

  def one_of(*things) = things.sample(random: random)

  def opening(times)
    opened = one_of(*times)
    { opened_at: opened, clock_at: one_of(nil, opened, opened + 2),
      deadline: one_of(nil, opened + 10.3, opened + 40, opened + 5000), # off the edge of a slow line, with any extra time
      closed_at: one_of(nil, nil, opened + 5, opened + 38, opened + 4993),
      told_at: one_of(nil, nil, nil, opened + 6, opened + 41) }
  end

  # Whose it is.
  def sender(times)
    came = times.map { |time| time - 0.3 } # off the edges of openings
    { joined_at: one_of(-9000.0, -9000.0, *came), factor: one_of(1r, 1r, 5/4r, 2r), told_at: one_of(nil, nil, nil, -1.0) }
  end

  def sitting(times)
    began = one_of(*times)
    first = one_of(1, 1, 2)
    { started_at: began, deadline: one_of(nil, began + 20, began + 5000), window_ends_at: one_of(nil, nil, began + 30),
      handed_in_at: one_of(nil, nil, began + 5), first_open: first, last_open: one_of(first, 3),
      slides: one_of(%w[s4 s2 s3], %w[s4 s3 s5]),
      rules: { "feedback" => one_of("end", "end", "right") } }
  end

  # Which attempt each is of: mostly the same.
  def attempts
    of_save = one_of(1, 1, 2, 3)
    others = %i[opening sitting stored telling].to_h { |part| [part, one_of(*([of_save] * 5), 1, 2)] }
    { save: of_save, **others }
  end

  # @return [Hash] :ended, :alone (nothing is open to the room), :gone (:seat, :session or nil), :attempts, :sender, :opening,
  #   :sitting, :stored and :save
  def situation(times, ids)
    writers = ids.first(2)
    stored = { final: one_of(true, false), late: one_of(true, false), save_no: one_of(1, 3), save_id: ids[2],
               writer: one_of(nil, *writers) }
    save = { final: one_of(true, false), readable: one_of(true, true, false), keyed: one_of(true, false),
             changeable: one_of(true, false), save_no: one_of(1, 2, 4), save_id: ids[3], writer: one_of(nil, *writers),
             over: one_of([], [ids[2]], [ids[1]]), in_time_only: one_of(true, false, false), by_line: one_of(true, false, false),
             entered: one_of(true, *([false] * 5)) }
    save[:in_time_only] = false if save[:by_line]
    { ended: one_of(nil, nil, nil, *times), alone: one_of(true, false, false), sender: sender(times),
      gone: one_of(*([nil] * 18), :seat, :session), attempts: attempts,
      opening: one_of(nil, opening(times), opening(times)),
      sitting: one_of(nil, nil, sitting(times)), stored: one_of(nil, stored, stored), save: save }
  end

  # What of it is of the attempt that is saved.
  def at_hand(said)
    here = ->(part) { said[part] if said[:attempts][part] == said[:attempts][:save] }
    { opening: (here.call(:opening) unless said[:alone]), stored: here.call(:stored),
      sitting: here.call(:sitting)&.then { |sitting| sitting if sitting[:slides].include?("s2") },
      told_at: (said[:sender][:told_at] if said[:attempts][:telling] == said[:attempts][:save]) }
  end

  def in_ruby(said)
    return :nothing if said[:gone]

    here = at_hand(said)
    build = ->(kind, values) { values && kind.new(**values).freeze }
    attempt = said[:attempts][:save]
    save = described_class::Save.new(at: 0.0, **said[:save])
    described_class.of(save, slide_id: "s2", ended_at: said[:ended], stored: build.call(described_class::Stored, here[:stored]),
                             sender: described_class::Sender.new(**said[:sender], told_at: here[:told_at]),
                             opening: build.call(Roost::Core::Session::Opening, here[:opening]&.merge(attempt: attempt)),
                             sitting: build.call(Roost::Core::Session::Sitting,
                                                 here[:sitting]&.merge(attempt: attempt, place: 1)))
  end

  # Seconds from now as a time of the database.
  def at(seconds) = seconds && Sequel.lit("clock_timestamp() + make_interval(secs => ?)", seconds)

  def times(values, *names) = values.merge(values.slice(*names).transform_values { |seconds| at(seconds) })

  def in_sql(session, seat_id, said)
    place = { session_id: session.id, seat_id: seat_id }
    database[:sessions].where(id: session.id).update(ended_at: at(said[:ended]), self_paced: said[:alone])
    opening = said[:opening] && times(said[:opening], *said[:opening].keys)
    of = said[:attempts]
    database[:openings].insert(session_id: session.id, slide_id: "s2", attempt: of[:opening], **opening) if opening
    keep_sitting({ **place, attempt: of[:sitting] }, said[:sitting]) if said[:sitting]
    keep_sender(seat_id, of[:telling], **said[:sender])
    if said[:stored]
      database[:answers].insert(**place, slide_id: "s2", attempt: of[:stored], value: Sequel.pg_jsonb({}), received_at: at(0.0),
                                         **said[:stored])
    end
    take_away(place, said[:gone])
    saved(place, of[:save], said[:save])
  end

  def take_away(place, what)
    now = Sequel.function(:now)
    database[:seats].where(id: place[:seat_id]).update(removed_at: now) if what == :seat
    database[:sessions].where(id: place[:session_id]).update(deleted_at: now) if what == :session
  end

  def saved(place, attempt, save)
    given = save[:readable] ? { value: {} } : { typed: { "text" => ["x"] } }
    given.merge!(save.except(:readable, :changeable), place, slide_id: "s2", attempt: attempt, may_change: save[:changeable])
    saved = Roost::Store::Answers.new.save(**given)
    saved.nil? ? :nothing : { true => :late, false => :in_time }.fetch(saved.late)
  end

  def keep_sender(seat_id, attempt, joined_at:, factor:, told_at:)
    database[:seats].where(id: seat_id).update(joined_at: at(joined_at), time_factor: factor.to_f)
    database[:tellings].insert(seat_id: seat_id, slide_id: "s2", attempt: attempt, told_at: at(told_at)) if told_at
  end

  def keep_sitting(place, sitting)
    columns = times(sitting.except(:slides, :rules), :started_at, :deadline, :window_ends_at, :handed_in_at)
    database[:sittings].insert(**place, section_id: "", place: 1, rules: Sequel.pg_jsonb(sitting[:rules]),
                                        slides: Sequel.pg_array(sitting[:slides], :text), **columns)
  end

  it "lets an answer in the room be changed whatever a sitting of other slides tells" do
    ids = Array.new(2) { SecureRandom.uuid }
    save = { final: true, save_no: 2, save_id: ids[0], writer: nil }
    made = { ended: nil, alone: false, gone: nil, attempts: Hash.new(1), sender: { joined_at: -9000.0, factor: 1r, told_at: nil },
             opening: { opened_at: -5.0, clock_at: nil, deadline: nil, closed_at: nil, told_at: nil },
             sitting: { started_at: -30.0, deadline: nil, window_ends_at: nil, handed_in_at: nil, first_open: 1, last_open: 3,
                        slides: %w[s4 s3 s5], rules: { "feedback" => "right" } },
             stored: { **save, late: false, save_no: 1, save_id: ids[1] },
             save: { **save, readable: true, keyed: true, changeable: true, over: [], in_time_only: false, by_line: false } }
    session = kept_session(teacher)
    expect([in_ruby(made), in_sql(session, take_seat(session).first[:id], made)]).to eq(%i[in_time in_time])
  end

  it "says the same as the statement that saves, over #{situations} made-up situations" do
    session = kept_session(teacher)
    ids = Array.new(4) { SecureRandom.uuid }
    seat_id = take_seat(session).first[:id]
    said = Hash.new(0)
    situations.times do
      made = situation(around_now, ids)
      ruby = in_ruby(made)
      said[ruby] += 1
      database.transaction(rollback: :always) { expect([made, in_sql(session, seat_id, made)]).to eq([made, ruby]) }
    end
    expect(said.values_at(:in_time, :late, :nothing)).to all(be > situations / 20)
  end
end
