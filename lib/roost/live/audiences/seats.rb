# frozen_string_literal: true

module Roost
  module Live
    module Audiences
      # Students' devices. They hear of commands only: what others answer is nothing to them. Those
      # that see the same share a view, which is made once; what a part of the question is called is
      # filled in for each.
      class Seats < Audience
        # version:: of the session; board:: the board that stands at seats, nil without one;
        # names:: seat id to the name that the device shows
        # team_answers:: where teams answer as one, seat id to what tells whether its team's answer is another; else nil
        Mark = Struct.new(:version, :board, :names, :team_answers)

        def surface = :seat

        def wakes?(scopes, _streams) = scopes.include?(:state) || scopes.include?(:sweep)

        def mark(moment)
          Mark.new(moment.version, (moment.class_tally if moment.live_board?), moment.names, moment.team_answers).freeze
        end

        def behind?(before, mark) = before.version != mark.version

        # What a device gets whose seat was removed: it asks for its page, and is told there.
        GONE = "event: gone\ndata: .\n\n"

        def send_to(streams, moment, mark, renderer, now)
          streams, gone = streams.partition { |stream| moment.names.key?(stream.about.seat_id) }
          gone.each do |stream|
            hub.write(stream, GONE)
            hub.drop(stream)
          end
          return if streams.empty?

          by_seat = streams.group_by { |stream| stream.about.seat_id }
          Core::Session::Views.seats(moment, by_seat.keys).each do |view, seat_ids|
            html = renderer.seat(view, now)
            shared = nil
            seat_ids.each do |seat_id|
              own = renderer.for_seat(html, view, seat_id)
              event = own.equal?(html) ? shared ||= event(moment, html) : event(moment, own)
              by_seat[seat_id].each { |stream| tell(stream, event, mark) }
            end
          end
          note_delivery(moment, by_seat.keys)
        end

        private

        # Where the name isn't the one the device shows, or it was away and may show an old one, it gets that first.
        def tell(stream, event, mark)
          hub.write(stream, "event: name\ndata: #{mark.names[stream.about.seat_id]}\n\n") unless named?(stream, mark)
          write(stream, event, mark)
        end

        # Where nobody was renamed since, all of them have the names of that time.
        def named?(stream, mark)
          before = stream.sent&.names
          return false unless before

          before.equal?(mark.names) || before[stream.about.seat_id] == mark.names[stream.about.seat_id]
        end

        def note_delivery(moment, seat_ids)
          return unless moment.state.open?

          seat_ids -= moment.record.shown_to(moment.state.slide_id).keys
          Store::Deliveries.new.note(moment.id, moment.state.slide_id, seat_ids, attempt: moment.attempt) if seat_ids.any?
        end
      end
    end
  end
end
