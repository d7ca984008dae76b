package server

import (
	"fmt"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"nimblebight/core/piece"
	"nimblebight/device"
	"nimblebight/formats/label"
)

// SetRequest says what a stand-in is to read or press, as it is written.
type SetRequest struct {
	What string `json:"what"`
}

// Sent is a label that was printed.
type Sent struct {
	Lines []string `json:"lines"`
}

// devices answers for what stands beside the cord.
func (s *Server) devices(r *gin.RouterGroup) {
	r.GET("/devices", s.hear)
	r.POST("/devices/:kind/set", s.setStandIn)
	r.POST("/pieces/:id/label", s.printLabel)
}

// beat is how often the page is told that the line still stands.
const beat = 8 * time.Second

// hear tells what comes from the devices, a line of JSON at a time: first how it stands with
// each, then what comes, till the page goes away.
func (s *Server) hear(c *gin.Context) {
	line := lines(c)
	events, stop := s.desk.Listen()
	defer stop()
	alive := time.NewTicker(beat)
	defer alive.Stop()
	for {
		var said any // nothing: the line still stands
		select {
		case <-c.Request.Context().Done():
			return
		case <-alive.C:
		case e := <-events:
			said = e
		}
		if line(said) != nil {
			return
		}
	}
}

func (s *Server) setStandIn(c *gin.Context) {
	k := device.Kind(c.Param("kind"))
	var q SetRequest
	err := read(c, &q)
	if err == nil && !slices.Contains(device.Kinds, k) {
		err = piece.Problems{{Path: "kind", Message: fmt.Sprintf("is %.20q; it is one of %v", k, device.Kinds)}}
	}
	if err == nil {
		err = deviceProblem(s.desk.Set(k, q.What))
	}
	answer(c, nil, err)
}

// deviceProblem is an error of a device as one that the maker can mend.
func deviceProblem(err error) error {
	if err == nil {
		return nil
	}
	return piece.Problems{{Path: "device", Message: err.Error()}}
}

func (s *Server) printLabel(c *gin.Context) {
	_, _, set, pl, err := s.planned(c)
	if err != nil {
		failed(c, err)
		return
	}
	lines := label.Lines(pl, set.Units == "inch", time.Now())
	answer(c, Sent{lines}, deviceProblem(s.desk.Print(on(c), lines)))
}

// chooseDevices takes the devices of the settings.
func (s *Server) chooseDevices(c ctx) {
	set, err := s.settings(c)
	if err != nil {
		s.log.Warn("choosing devices", "error", err)
		return
	}
	s.desk.Choose(set.Devices)
}
